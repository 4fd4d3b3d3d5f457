import { TextInput } from '@mantine/core';
import { useEffect, useLayoutEffect, useRef, useState, type ReactNode, type RefObject } from 'react';
import { codeTitle, isAllWords, meaningOf, parseTyped, type Code } from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import { mayAct } from '../../ui/keys/bounce.js';
import { isDialogOpen } from '../../ui/keys/dialog-open.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import { speak } from '../../ui/speak.js';
import { NumberPad } from './number-pad.js';
import { WordPad } from './word-pad.js';
import panel from '../panel.module.css';
import classes from './reading.module.css';

export interface OneReadingProps {
  readonly code: Code;
  /** Where one is, as a cap line. */
  readonly where: string;
  /** The presses that bring it on the glass. */
  readonly how: string;
  /** 1 for the first time it is asked for, 2 for the second. */
  readonly reading: number;
  readonly onTake: (raw: number) => void;
  readonly onNotShown: () => void;
  readonly note?: ReactNode;
  /** More acts beside the two. */
  readonly acts?: ReactNode;
}

/** One code, typed as the glass shows it; its meaning stands beside it at once. */
export function OneReading({ code, where, how, reading, onTake, onNotShown, note, acts }: OneReadingProps) {
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  useLayoutEffect(() => field.current?.focus(), []);
  const said = `${code.label}, ${codeTitle(code)}. ${how}`;
  useEffect(() => speak(said), [said]);
  useDigitsFor(field);
  const parsed = parseTyped(code, typed);
  const take = () => (parsed.ok ? onTake(parsed.value) : setProblem(parsed.problem.message));
  useHotkeys({ Space: take, N: onNotShown }, { shown: `${code.label} ${reading}` });
  return (
    <form
      className={panel['panel']}
      onSubmit={(event) => {
        event.preventDefault();
        // What bounced has nothing typed yet.
        if (typed !== '' || mayAct()) take();
      }}
    >
      <p className="cap">{where}</p>
      <p className={panel['lead']}>{how} Change nothing.</p>
      {note}
      <div className={classes['ask']}>
        <div className={classes['label']} data-code={code.label} data-reading={reading}>
          <span className={classes['code']}>{code.label}</span>
          <span>{codeTitle(code)}</span>
        </div>
        <TextInput
          ref={field}
          classNames={{ input: classes['digits'] ?? '' }}
          label="What does the glass show?"
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            setProblem(null);
          }}
          onKeyDown={(event) => {
            if (event.key === ' ' && typed !== '' && !code.shows) {
              event.preventDefault();
              take();
            }
          }}
          inputMode={code.shows ? 'text' : 'decimal'}
          autoComplete="off"
          data-scan-guard={code.shows ? 'words' : true}
          error={problem}
        />
        <div>
          {code.shows && <WordPad words={code.shows.map(({ text }) => text)} typed={typed} onWord={setTyped} />}
          {!isAllWords(code) && (
            <NumberPad
              onDigit={(digit) => setTyped((before) => `${before}${digit}`)}
              onBack={() => setTyped((before) => before.slice(0, -1))}
            />
          )}
        </div>
        <p className={classes['means']} aria-live="polite">
          {typed !== '' && parsed.ok && meaningOf(code, parsed.value)}
        </p>
      </div>
      <div className={panel['acts']}>
        <ActButton type="submit" look="main" hotkey="Enter" onAct={() => undefined}>
          That is what it shows
        </ActButton>
        <ActButton {...(code.shows ? {} : { hotkey: 'N' })} onAct={onNotShown}>
          Not shown
        </ActButton>
        {acts}
      </div>
    </form>
  );
}

/** A scanner's digits follow one another faster than this. */
const HAND_MS = 150;

/** A digit typed by hand anywhere on the page goes into the field: a click elsewhere has not taken it away. */
function useDigitsFor(field: RefObject<HTMLInputElement | null>): void {
  useEffect(() => {
    let lastAt = 0;
    const onKey = (event: KeyboardEvent) => {
      const isByHand = event.timeStamp - lastAt > HAND_MS;
      lastAt = event.timeStamp;
      const target = event.target instanceof HTMLElement ? event.target : null;
      if (
        isDialogOpen() ||
        !isByHand ||
        !/^[0-9]$/.test(event.key) ||
        target?.closest('input, textarea, select, [role="dialog"]')
      )
        return;
      field.current?.focus();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [field]);
}
