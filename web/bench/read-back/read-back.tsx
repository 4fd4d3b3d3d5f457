import { TextInput } from '@mantine/core';
import { useLayoutEffect, useRef, useState } from 'react';
import { findCode, formatRaw, functionTitle, isAgainst, meaningOf, parseTyped, type Code, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { ActButton } from '../../ui/act-button.js';
import { Busy, Notice } from '../../ui/notice.js';
import { useHotkeys } from '../../ui/use-hotkeys.js';
import type { Visit } from '../use-visit.js';
import { NumberPad } from './number-pad.js';
import { useReadRoute } from './use-read-route.js';
import { VerdictTable } from './verdict-table.js';
import panel from '../panel.module.css';
import classes from './read-back.module.css';

/** Step 6: every code read from the glass without its target in sight, in the order of the menu, then all of them judged. */
export function ReadBack({ bench, state, visit }: { readonly bench: BenchView; readonly state: VisitState; readonly visit: Visit }) {
  const route = useReadRoute(bench.map, state);
  const open = state.toRead.filter((label) => state.verdicts.some((v) => v.label === label && v.verdict === 'notRead'));
  if (open.length === 0) return <Verdicts bench={bench} state={state} visit={visit} />;
  if (!route) return <Busy />;
  const label = route.order.find((one) => open.includes(one)) ?? open[0] ?? '';
  const code = findCode(bench.map, label);
  if (!code) return <Verdicts bench={bench} state={state} visit={visit} />;
  return <OneReading key={`${label} ${state.readings[label]?.length ?? 0}`} code={code} how={route.wayTo(label)} state={state} visit={visit} left={open.length} />;
}

interface OneReadingProps {
  readonly code: Code;
  /** The presses that bring it on the glass. */
  readonly how: string;
  readonly state: VisitState;
  readonly visit: Visit;
  readonly left: number;
}

function OneReading({ code, how, state, visit, left }: OneReadingProps) {
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  useLayoutEffect(() => field.current?.focus(), []);
  const again = (state.readings[code.label]?.length ?? 0) > 0;
  const parsed = parseTyped(code, typed);

  const take = () => {
    if (!parsed.ok) return setProblem(parsed.problem.message);
    void visit.act('codeRead', { label: code.label, raw: parsed.value });
  };
  const notShown = () => void visit.act('codeRead', { label: code.label, raw: null });

  return (
    <form
      className={panel['panel']}
      onSubmit={(event) => {
        event.preventDefault();
        take();
      }}
    >
      <p className="cap">
        Read back · {state.toRead.length - left + 1} of {state.toRead.length}
      </p>
      <p className={panel['lead']}>
        {how} Change nothing.
      </p>
      {again && <Notice kind="care" says={`Look at ${code.label} once more and type what it shows now.`} />}
      <div className={classes['ask']}>
        <div className={classes['label']} data-code={code.label} data-reading={(state.readings[code.label]?.length ?? 0) + 1}>
          <span className={classes['code']}>{code.label}</span>
          <span>{functionTitle(code.function)}</span>
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
            if (event.key.toLowerCase() === 'n') {
              event.preventDefault();
              notShown();
            }
            if (event.key === ' ' || event.key === 'PageDown') {
              event.preventDefault();
              take();
            }
          }}
          inputMode="decimal"
          autoComplete="off"
          data-scan-guard
          error={problem}
        />
        <NumberPad onDigit={(digit) => setTyped((before) => `${before}${digit}`)} onBack={() => setTyped((before) => before.slice(0, -1))} />
        <p className={classes['means']} aria-live="polite">
          {typed !== '' && parsed.ok && meaningOf(code, parsed.value)}
        </p>
      </div>
      <div className={panel['acts']}>
        <ActButton type="submit" look="main" hotkey="Enter" onAct={() => undefined}>
          That is what it shows
        </ActButton>
        <ActButton hotkey="N" onAct={notShown}>
          Not shown
        </ActButton>
      </div>
    </form>
  );
}

function Verdicts({ bench, state, visit }: { readonly bench: BenchView; readonly state: VisitState; readonly visit: Visit }) {
  const against = state.verdicts.filter(isAgainst);
  const agreed = state.verdicts.filter((v) => v.verdict === 'agrees').length;
  const close = () => void visit.act('readBackClosed', {});
  const hopeless = against.some((v) => v.verdict !== 'differs');
  useHotkeys({ Space: close });
  return (
    <div className={panel['panel']}>
      <p className="cap">Read back · verdict</p>
      {against.length === 0 ? (
        <Notice kind="done" title="Every code shows what it must" says={`${agreed} agree after the restart.`} />
      ) : (
        <Notice kind="stop" title={`${against.length} ${against.length === 1 ? 'code disagrees' : 'codes disagree'}`} says={against.map((v) => `${v.label} ${saysAgainst(v.readings.at(-1) ?? null, v.target, findCode(bench.map, v.label))}`).join('; ')} />
      )}
      <VerdictTable verdicts={state.verdicts} map={bench.map} />
      <div className={panel['acts']}>
        <ActButton look="main" hotkey="Space" onAct={close}>
          {against.length === 0 ? 'To sign off' : hopeless ? 'Hold it for a lead' : `Key ${against.length === 1 ? 'it' : `these ${against.length}`} again`}
        </ActButton>
      </div>
    </div>
  );
}

function saysAgainst(shown: number | null, target: number | null, code: Code | undefined): string {
  if (shown === null) return 'is not shown';
  const show = (raw: number) => (code ? `${formatRaw(code, raw)} (${meaningOf(code, raw)})` : String(raw));
  return `shows ${show(shown)}, must be ${target === null ? 'as found' : show(target)}`;
}
