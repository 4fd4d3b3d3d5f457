import { STEPS } from '@decurio/core';
import classes from './step-ladder-marks.module.css';

const WORDS: Readonly<Record<string, string>> = {
  d: 'done',
  l: 'left out',
  n: 'now',
  h: 'held here',
  t: 'to do',
  x: 'not part of the visit',
};

/** Ten small marks, one a step: done is full, now and held stand out by shape as well as colour. */
export function StepLadderMarks({ ladder }: { readonly ladder: string }) {
  const done = [...ladder].filter((mark) => mark === 'd').length;
  const leftOut = [...ladder].filter((mark) => mark === 'l').length;
  const part = [...ladder].filter((mark) => mark !== 'x').length;
  return (
    <span
      className={classes['marks']}
      role="img"
      aria-label={`${done} of ${part} steps done${leftOut === 0 ? '' : `, ${leftOut} left out`}`}
    >
      {STEPS.map((step, i) => {
        const mark = ladder.charAt(i);
        return <i key={step.id} data-mark={mark} title={`${step.title}: ${WORDS[mark] ?? ''}`} />;
      })}
    </span>
  );
}
