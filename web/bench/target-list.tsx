import { IconCheck, IconLock, IconX } from '@tabler/icons-react';
import {
  findCode,
  formatRaw,
  functionTitle,
  isAgainst,
  isOpen,
  meaningBeside,
  type Code,
  type CodeTarget,
  type DisplayMap,
  type VisitState,
} from '@decurio/core';
import { Notice } from '../ui/notice.js';
import classes from './target-list.module.css';

export interface TargetListProps {
  readonly state: VisitState;
  readonly map: DisplayMap;
}

/** Codes to be keyed, each with what it shows now, its target and the reason; the others in one line. */
export function TargetList({ state, map }: TargetListProps) {
  const judged =
    state.step === 'calibrate' || state.step === 'prove' || state.step === 'signOff' || state.step === null;
  const targets = state.opened.setup.targets;
  const worked = targets.filter(
    ({ label }) =>
      judged || state.toKey.includes(label) || state.keyedThisRound.includes(label) || state.stuck.includes(label),
  );
  const rest = targets.length - worked.length;
  const waits = state.opened.setup.findings.filter(isOpen).length;
  return (
    <div className={classes['list']}>
      {waits > 0 && !judged && (
        <Notice
          kind="care"
          says={`${waits === 1 ? 'One choice waits' : `${waits} choices wait`} for a lead on the page of the order. The unit can be prepared meanwhile.`}
        />
      )}
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
          {worked.map((target) => (
            <Row key={target.label} target={target} state={state} code={findCode(map, target.label)} />
          ))}
        </tbody>
      </table>
      {rest > 0 && <p className="soft">{restSays(state, rest)}</p>}
    </div>
  );
}

const restSays = (state: VisitState, rest: number): string =>
  state.round > 1
    ? `${rest} more codes were read back and are not against their targets.`
    : `${rest} more codes are delivered at their target or stay as found. All are read back.`;

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
  const verdict = state.verdicts.find((v) => v.label === label);
  const against = verdict !== undefined && isAgainst(verdict);
  const done = state.keyedThisRound.includes(label) || verdict?.verdict === 'agrees' || verdict?.verdict === 'accepted';
  const isNext = state.step === 'keyIn' && state.toKey[0] === label;
  const found = verdict?.readings.at(-1) ?? (done ? state.atRoundStart[label] : state.values[label]);
  return (
    <tr data-next={isNext} aria-current={isNext ? 'true' : undefined}>
      <th scope="row">
        <span className={classes['mark']}>
          {against ? (
            <IconX size={15} aria-label="disagrees" />
          ) : state.stuck.includes(label) || target.locked ? (
            <IconLock size={14} aria-label="locked" />
          ) : done ? (
            <IconCheck size={15} aria-label="done" />
          ) : null}
        </span>
        {label}
      </th>
      <td>
        {functionTitle(target.function)}
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
