import type { OrderChangeKind, OrderChangeView } from '@decurio/contract';
import { whenFull } from '../../ui/when.js';
import classes from './order-page.module.css';

const TITLES: Readonly<Record<OrderChangeKind, string>> = {
  taken: 'Taken in',
  amended: 'Amended',
  decided: 'Decided',
  unitsAdded: 'Units added',
  withdrawn: 'Withdrawn',
  recompiled: 'Worked out anew',
  wishes: 'One unit otherwise',
  followed: 'What followed',
};

/** How an order was changed, newest first, each with its reason and what followed. */
export function ChangeList({ changes }: { readonly changes: readonly OrderChangeView[] }) {
  return (
    <section className={classes['card']} aria-label="How it was changed">
      <h2>How it was changed</h2>
      {changes.length === 0 && <p className="soft">It stands as it was taken in.</p>}
      <ul className={classes['changes']}>
        {changes.map(({ kind, at, by, reason, says }, i) => (
          <li key={`${at} ${i}`}>
            <strong>{TITLES[kind]}</strong>
            {reason !== '' && `: ${reason}`}
            <p className="soft">
              {by}, {whenFull(at)}. {says.join(' ')}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
