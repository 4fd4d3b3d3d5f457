import { IconCheck } from '@tabler/icons-react';
import type { VisitCheck, VisitState } from '@decurio/core';
import classes from './checks.module.css';

/** All checks of a step in a row of their own: made, now, to come. */
export function CheckMarks({
  state,
  step,
  now,
}: {
  readonly state: VisitState;
  readonly step: VisitCheck['step'];
  readonly now: string;
}) {
  const all = (state.opened.bench?.checks ?? []).filter((check) => check.step === step);
  return (
    <ol className={classes['marks']} aria-label="Checks before delivery">
      {all.map(({ id, title }) => {
        const isMade = id in state.checks;
        return (
          <li
            key={id}
            data-mark={isMade ? 'done' : id === now ? 'now' : 'todo'}
            aria-current={id === now ? 'step' : undefined}
          >
            {isMade && <IconCheck size={15} stroke={2.6} aria-label="made" />}
            {title}
          </li>
        );
      })}
    </ol>
  );
}
