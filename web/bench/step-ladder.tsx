import { IconCheck, IconHandStop, IconMinus } from '@tabler/icons-react';
import { isLeftOut, STEPS, STEPS_OFFERED, type VisitState } from '@decurio/core';
import type { LineUnit } from '@decurio/contract';
import { whenClock } from '../ui/when.js';
import classes from './step-ladder.module.css';

/** The ten steps of a visit: done by whom, where one is, and which are not offered yet. */
export function StepLadder({
  state,
  unit: { handedOverAt, handedTo },
}: {
  readonly state: VisitState | null;
  readonly unit: Pick<LineUnit, 'handedOverAt' | 'handedTo'>;
}) {
  const steps = state?.opened.steps ?? STEPS_OFFERED;
  return (
    <ol className={classes['ladder']} aria-label="Steps of this visit">
      {STEPS.map((step, i) => {
        const done = state?.done.find((d) => d.step === step.id);
        // The last step lies after the seal, in a chain of its own.
        const isHandOver = step.id === 'handOver';
        const isSealed = state !== null && state.step === null && state.withdrawn === null;
        const isOut = isHandOver && handedOverAt !== null;
        const isNow = isHandOver ? isSealed && !isOut : state?.step === step.id;
        const offered = (isHandOver && !state?.opened.isSpare) || steps.includes(step.id);
        const mark = !offered
          ? 'off'
          : isNow
            ? state?.held
              ? 'held'
              : 'now'
            : isOut
              ? 'done'
              : !done
                ? 'todo'
                : state && isLeftOut(state, step.id)
                  ? 'left'
                  : 'done';
        return (
          <li key={step.id} data-mark={mark} aria-current={isNow ? 'step' : undefined}>
            <span className={classes['rung']} aria-hidden="true">
              {mark === 'done' ? (
                <IconCheck size={15} stroke={2.6} />
              ) : mark === 'left' ? (
                <IconMinus size={15} stroke={2.6} />
              ) : mark === 'held' ? (
                <IconHandStop size={14} />
              ) : (
                i + 1
              )}
            </span>
            <span className={classes['words']}>
              {step.title}
              {done && (
                <small>
                  {mark === 'left' && 'left out, '}
                  {whenClock(done.at)} {done.by.name.split(' ')[0]}
                </small>
              )}
              {isOut && (
                <small>
                  {whenClock(handedOverAt)} to {handedTo}
                </small>
              )}
              {mark === 'held' && <small>held</small>}
              {mark === 'off' && <small>{state?.opened.isSpare ? 'on no vehicle' : 'not offered yet'}</small>}
            </span>
          </li>
        );
      })}
    </ol>
  );
}
