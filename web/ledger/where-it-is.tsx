import { Link } from 'react-router';
import { api } from '../state/api.js';
import { SignatureShown } from '../hand-over/signature.js';
import { whenFull } from '../ui/when.js';
import classes from './record-page.module.css';

const PINS = { menu: 'Menu PIN', start: 'Start PIN' } as const;

/** Where a sealed unit is: still in the house, or with whom, since when, and what went along. */
export function WhereItIs({ visitId, unitId }: { readonly visitId: string; readonly unitId: string }) {
  const { data } = api.useHandoverQuery(visitId);
  if (!data) return null;
  const { out, label, things, pins, shown, papers } = data.state;
  if (!out)
    return (
      <p className={classes['where']}>
        <b>In the house.</b> <Link to={`/bench/${unitId}`}>Papers and handing over</Link>
      </p>
    );
  const said = [
    label && `Label: ${label.where}.`,
    things.length > 0 && `With it: ${things.join(', ')}.`,
    ...pins.map(({ opens, to }) => `${PINS[opens]} told to ${to}.`),
    shown.length > 0 && `${shown.length} things were shown to the rider.`,
    papers.length > 0 && `${new Set(papers.map(({ paper }) => paper)).size} kinds of paper made.`,
  ].filter((part) => part !== null && part !== false);
  return (
    <section className={classes['where']} aria-label="Where it is">
      <p>
        <b>Out with {out.to}</b> since {whenFull(out.at)}, handed over by {out.by}
        {out.words !== '' && ` Not signed: ${out.words}`}
      </p>
      <p className="soft">{said.join(' ')} What was handed over is a chain of its own, from the seal on.</p>
      {out.strokes && <SignatureShown strokes={out.strokes} />}
    </section>
  );
}
