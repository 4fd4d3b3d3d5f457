import { Fragment } from 'react';
import { gestureKeys, findCode, codeTitle, type DisplayMap, type KeyPlan, type PlanStep } from '@decurio/core';
import classes from './next-presses.module.css';

const BEHIND = 3;
const AHEAD = 9;

/** The last presses, the one that is due, and the next ones, with the code each group serves. */
export function NextPresses({
  map,
  plan,
  index,
}: {
  readonly map: DisplayMap;
  readonly plan: KeyPlan;
  readonly index: number;
}) {
  const from = Math.max(0, index - BEHIND);
  const shown = plan.steps.slice(from, index + AHEAD + 1);
  return (
    <ol className={classes['presses']} aria-label="Next presses">
      {shown.map((step, i) => {
        const at = from + i;
        const previous = plan.steps[at - 1];
        const code = step.serves === null ? undefined : findCode(map, step.serves);
        const begins = at > index && previous !== undefined && previous.serves !== step.serves;
        return (
          <Fragment key={at}>
            {begins && (
              <li className={classes['group']}>
                {code ? `then ${code.label}, ${codeTitle(code).toLowerCase()}` : 'then leave'}
              </li>
            )}
            <li
              data-mark={at < index ? 'done' : at === index ? 'now' : 'next'}
              aria-current={at === index ? 'step' : undefined}
            >
              {keyWords(map, step)}
            </li>
          </Fragment>
        );
      })}
      {index + AHEAD + 1 < plan.steps.length && (
        <li className={classes['group']}>and {plan.steps.length - index - AHEAD - 1} more</li>
      )}
    </ol>
  );
}

function keyWords(map: DisplayMap, { gesture, after, purpose }: PlanStep): string {
  switch (gesture.kind) {
    case 'wait':
      return 'wait';
    case 'tap':
      return gestureKeys(map, gesture);
    case 'double':
      return `${gestureKeys(map, gesture)} twice`;
    case 'hold':
      return purpose === 'change' && after.kind === 'menu' && after.digit === null && after.focus !== 'value'
        ? `hold ${gestureKeys(map, gesture)} to ${after.text}`
        : `hold ${gestureKeys(map, gesture)}`;
  }
}
