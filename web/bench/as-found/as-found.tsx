import { useEffect, useMemo, useState } from 'react';
import { findCode, mayHold, valueWords, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { ActButton } from '../../ui/act-button.js';
import { KeyButton } from '../../ui/keys/key-button.js';
import { Busy, Notice } from '../../ui/notice.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import { OneReading } from '../reading/one-reading.js';
import { useReadRoute } from '../../ui/use-read-route.js';
import type { Visit } from '../use-visit.js';
import panel from '../panel.module.css';
import classes from './as-found.module.css';

interface AsFoundProps {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
}

/** Step 3: what the unit shows before any code is touched, in the order of the menu. */
export function AsFound(props: AsFoundProps) {
  const { state } = props;
  const asked = Object.keys(state.found).length + state.toFind.length;
  // A code was asked for since this page shows the unit: the last reading leads on where nothing is to be looked at.
  const [worked, setWorked] = useState(false);
  if (state.toFind.length > 0 && !worked) setWorked(true);
  const [again, setAgain] = useState<string | null>(null);
  /** What was read again is not what its key leads to next. */
  const [twice, setTwice] = useState<readonly string[]>([]);
  const readAgain = (label: string) => {
    setTwice((before) => [...before, label]);
    setAgain(label);
  };
  if (again !== null && state.toFind.length === 0)
    return (
      <NextFound
        key={`again ${again}`}
        asked={asked}
        again={{ label: again, onDone: () => setAgain(null) }}
        {...props}
      />
    );
  // A surprise asks for more codes: the way through them is planned anew.
  return state.toFind.length === 0 ? (
    <AllFound isJustRead={worked} twice={twice} onAgain={readAgain} {...props} />
  ) : (
    <NextFound key={asked} asked={asked} {...props} />
  );
}

interface NextFoundProps extends AsFoundProps {
  readonly asked: number;
  /** A code that is looked at again, once all are read. */
  readonly again?: { readonly label: string; readonly onDone: () => void };
}

function NextFound({ bench, state, visit, asked, again }: NextFoundProps) {
  const only = again?.label;
  const wanted = useMemo(() => (only === undefined ? state.toFind : [only]), [only, state.toFind]);
  const route = useReadRoute(bench.map, wanted, state.values);
  if (!route) return <Busy />;
  const label = route.order.find((one) => wanted.includes(one)) ?? wanted[0] ?? '';
  const code = findCode(bench.map, label);
  if (!code) return <Notice kind="stop" says={`${label} is not on this display's map.`} />;
  const read = (raw: number | null) => {
    void visit.act('asFoundRead', { label, raw });
    again?.onDone();
  };
  const isFirst = Object.keys(state.found).length === 0;
  const newest = state.surprises.at(-1);
  return (
    <>
      <OneReading
        key={label}
        code={code}
        where={again ? 'As found · once more' : `As found · ${asked - state.toFind.length + 1} of ${asked}`}
        how={route.wayTo(label)}
        reading={1}
        onTake={read}
        onNotShown={() => read(null)}
        note={
          again ? null : newest ? (
            <Notice kind={newest.level === 'decide' ? 'stop' : 'care'} says={newest.says} />
          ) : (
            isFirst && state.opened.bench && <p className="soft">{state.opened.bench.asFound.why}</p>
          )
        }
        acts={
          <>
            {again && (
              <KeyButton hotkey="K" onAct={again.onDone}>
                It stands as it was read
              </KeyButton>
            )}
            {bench.map.menu?.pin && isFirst && (
              <KeyButton hotkey="X" onAct={() => void visit.act('pinRefused', {})}>
                The PIN does not open it
              </KeyButton>
            )}
          </>
        }
      />
    </>
  );
}

interface AllFoundProps extends AsFoundProps {
  /** The last of them was read on this page, just now. */
  readonly isJustRead: boolean;
  /** Labels of what was read again. */
  readonly twice: readonly string[];
  readonly onAgain: (label: string) => void;
}

function AllFound({ bench, state, visit, isJustRead, twice, onAgain }: AllFoundProps) {
  const grave = state.surprises.filter((met) => met.level === 'decide');
  const notes = state.surprises.filter((met) => met.level === 'note');
  const read = Object.keys(state.found).length;
  const close = () => void visit.act('asFoundClosed', {});
  const goesOn = isJustRead && state.surprises.length === 0;
  useEffect(() => {
    if (goesOn) close();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, as it is come to
  }, []);
  const doubted = [...grave, ...notes].flatMap(({ label }) => label ?? []);
  const next = doubted.find((label) => !twice.includes(label)) ?? doubted[0];
  useHotkeys({
    Space: visit.isAwaited ? undefined : close,
    E: next === undefined || visit.isAwaited ? undefined : () => onAgain(next),
  });
  return (
    <div className={panel['panel']}>
      <p className="cap">As found</p>
      <h2 className={panel['title']}>
        {state.surprises.length === 0
          ? `${read} codes read, all as expected`
          : `${read} codes read, ${state.surprises.length} not as expected`}
      </h2>
      {state.surprises.length > 0 && (
        <ul className={classes['surprises']} tabIndex={0} aria-label="Not as expected">
          {[...grave, ...notes].map((met, i) => (
            <li key={i}>
              <Notice
                kind={met.level === 'decide' ? 'stop' : 'care'}
                says={withMeaning(bench, met.label, state, met.says)}
                {...lookAgain(met.label, next, onAgain)}
              />
            </li>
          ))}
        </ul>
      )}
      <p className={panel['lead']}>
        {grave.length > 0
          ? 'A lead looks at it before anything is keyed.'
          : 'Nothing was touched: this state can be restored later.'}{' '}
        The setup is held against what was found.
      </p>
      <div className={panel['acts']}>
        <ActButton look={grave.length > 0 ? 'care' : 'main'} hotkey="Space" busy={visit.isAwaited} onAct={close}>
          {grave.length > 0 ? 'Hold it for a lead' : 'To key in'}
        </ActButton>
        {visit.isAwaited && (
          <span className="soft">The server works the setup out. What you entered is kept here.</span>
        )}
      </div>
    </div>
  );
}

/** The act that reads this code again; the key stands on one of them, and goes on to the next. */
const lookAgain = (label: string | null, next: string | undefined, onAgain: (label: string) => void) =>
  label === null
    ? {}
    : {
        act: {
          label: `Read ${label} again`,
          onAct: () => onAgain(label),
          ...(label === next ? { hotkey: 'E' } : {}),
        },
      };

function withMeaning({ map }: BenchView, label: string | null, { found }: VisitState, says: string): string {
  const code = label === null ? undefined : findCode(map, label);
  const raw = label === null ? null : (found[label] ?? null);
  return code && raw !== null && mayHold(code, raw) ? `${says.replace(/\.$/, '')}: ${valueWords(code, raw)}.` : says;
}
