import { Link } from 'react-router';
import { api } from '../state/api.js';
import classes from './orders-page.module.css';

/** Vehicles that are out on private land under an authority that has ended or soon will: they come back and are restored. */
export function EndingAuthorities() {
  const { data } = api.useEndingQuery(null);
  if (!data || data.length === 0) return null;
  return (
    <section className={classes['ending']} aria-label="Authority that runs out">
      <h2 className={classes['heading']}>Private land: authority that runs out</h2>
      <p className="soft">
        Take these back: on the order's page a lead brings its units under a class again. They are read in full, set,
        and proved in full before they go anywhere else.
      </p>
      <ul>
        {data.map(({ id, number, customer, label, endsOn, hasEnded, sealed }) => (
          <li key={id} data-ended={hasEnded || undefined}>
            <Link to={`/orders/${id}`}>{number}</Link> {customer}, {label}: {hasEnded ? 'ended on' : 'until'}{' '}
            <strong>{endsOn}</strong>, {sealed} {sealed === 1 ? 'unit' : 'units'} out
          </li>
        ))}
      </ul>
    </section>
  );
}
