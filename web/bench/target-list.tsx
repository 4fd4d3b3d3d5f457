import { IconCheck, IconLock, IconX } from '@tabler/icons-react';
import { useMemo } from 'react';
import {
  findCode,
  formatRaw,
  codeTitle,
  isAgainst,
  isOpen,
  meaningBeside,
  type Code,
  type CodeTarget,
  type DisplayMap,
  modeMatrix,
  type VisitState,
} from '@decurio/core';
import { ModeTable } from '../ui/mode-table.js';
import { Notice } from '../ui/notice.js';
import classes from './target-list.module.css';

export interface TargetListProps {
  readonly state: VisitState;
  readonly map: DisplayMap;
  /** Worked out on this stand alone so far. */
  readonly isSetupOwn: boolean;
}

/** Codes to be keyed, each with what it shows now, its target and the reason; the others in one line. */
export function TargetList({ state, map, isSetupOwn }: TargetListProps) {
  const judged =
    state.step === 'calibrate' || state.step === 'prove' || state.step === 'signOff' || state.step === null;
  const targets = state.opened.setup.targets;
  const worked = targets.filter(
    ({ label }) =>
      judged || state.toKey.includes(label) || state.keyedThisRound.includes(label) || state.stuck.includes(label),
  );
  const rest = targets.length - worked.length;
  const matrix = useMemo(() => modeMatrix(map), [map]);
  const ofModes = new Set(matrix?.entries.flatMap(({ codes }) => codes.map((code) => code?.label)));
  const plain = worked.filter(({ label }) => !ofModes.has(label));
  const waits = state.opened.setup.findings.filter(isOpen).length;
  return (
    <div className={classes['list']}>
      {waits > 0 && !judged && (
        <Notice
          kind="care"
          says={`${waits === 1 ? 'One choice waits' : `${waits} choices wait`} for a lead on the page of the order. The unit can be prepared meanwhile.`}
        />
      )}
      {isSetupOwn && (
        <Notice
          kind="note"
          says="Worked out on this stand. The server does so again as soon as it answers; what it says stands."
        />
      )}
      {matrix && (
        <ModeTable
          matrix={matrix}
          isNarrow
          targets={worked}
          cell={(target, code) => <ModeCell target={target} code={code} state={state} />}
        />
      )}
      {plain.length > 0 && (
        <table>
          <thead>
            <tr className="cap">
              <th scope="col">Code</th>
              <th scope="col">Sets</th>
              <th scope="col">
                {state.round > 1 || judged
                  ? 'Read'
                  : state.done.some(({ step }) => step === 'asFound')
                    ? 'Found'
                    : 'Factory'}
              </th>
              <th scope="col">Target</th>
            </tr>
          </thead>
          <tbody>
            {plain.map((target) => (
              <Row key={target.label} target={target} state={state} code={findCode(map, target.label)} />
            ))}
          </tbody>
        </table>
      )}
      {rest > 0 && <p className="soft">{restSays(state, rest)}</p>}
    </div>
  );
}

const restSays = (state: VisitState, rest: number): string =>
  state.round > 1
    ? `${rest} more codes were read back and are not against their targets.`
    : `${rest} more codes are delivered at their target or stay as found. All are read back.`;

/** Where a code stands: what it shows, whether it is done or next, or why it cannot be. */
function standing({ label }: CodeTarget, state: VisitState) {
  const verdict = state.verdicts.find((v) => v.label === label);
  const done = state.keyedThisRound.includes(label) || verdict?.verdict === 'agrees' || verdict?.verdict === 'accepted';
  return {
    against: verdict !== undefined && isAgainst(verdict),
    done,
    isNext: state.step === 'keyIn' && state.toKey[0] === label,
    found: verdict?.readings.at(-1) ?? (done ? state.atRoundStart[label] : state.values[label]),
  };
}

function Mark({ target, state }: { readonly target: CodeTarget; readonly state: VisitState }) {
  const { against, done } = standing(target, state);
  return (
    <span className={classes['mark']}>
      {against ? (
        <IconX size={15} aria-label="disagrees" />
      ) : state.stuck.includes(target.label) || target.locked ? (
        <IconLock size={14} aria-label="locked" />
      ) : done ? (
        <IconCheck size={15} aria-label="done" />
      ) : null}
    </span>
  );
}

/** One code of one ride mode: from what it shows to what it must. */
function ModeCell({
  target,
  code,
  state,
}: {
  readonly target: CodeTarget;
  readonly code: Code;
  readonly state: VisitState;
}) {
  const { found, isNext } = standing(target, state);
  const shown = found === undefined || found === null ? '–' : formatRaw(code, found);
  return (
    <span className={classes['cell']} data-next={isNext}>
      {target.raw === null || target.raw === found ? (
        shown
      ) : (
        <>
          {shown}
          <span aria-label="to" className={classes['to']}>
            →
          </span>
          <b>{formatRaw(code, target.raw)}</b>
        </>
      )}
      <Mark target={target} state={state} />
    </span>
  );
}

function Row({
  target,
  state,
  code,
}: {
  readonly target: CodeTarget;
  readonly state: VisitState;
  readonly code: Code | undefined;
}) {
  if (!code) return null;
  const { label } = target;
  const { isNext, found } = standing(target, state);
  return (
    <tr data-next={isNext} aria-current={isNext ? 'true' : undefined}>
      <th scope="row">
        <Mark target={target} state={state} />
        {label}
      </th>
      <td>
        {codeTitle(code ?? target)}
        <small>{target.because}</small>
      </td>
      <td className="num">{found === undefined || found === null ? '–' : formatRaw(code, found)}</td>
      <td className="num">
        {target.raw === null ? (
          <small>as found</small>
        ) : (
          <>
            <b>{formatRaw(code, target.raw)}</b> <small>{meaningBeside(code, target.raw)}</small>
          </>
        )}
      </td>
    </tr>
  );
}
