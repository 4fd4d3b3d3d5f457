import { Link } from 'react-router';
import { stepTitle } from '@decurio/core';
import type { LineUnit } from '@decurio/contract';
import classes from './side-cards.module.css';

const SHOWN = 5;

/** What is next for the person signed in, and what is held and why. */
export function SideCards({ units, me }: { readonly units: readonly LineUnit[]; readonly me: string }) {
  const mine = units.filter((unit) => unit.status === 'open' && unit.worker === me);
  const waiting = units.filter((unit) => unit.status === 'waiting').slice(0, Math.max(1, SHOWN - mine.length));
  const next = [...mine, ...waiting].slice(0, SHOWN);
  const held = units.filter((unit) => unit.status === 'held');
  const odd = units.filter((unit) => unit.odd !== null);
  return (
    <aside className={classes['side']}>
      <section className={classes['card']}>
        <h2 className="cap">Next for you</h2>
        {next.length === 0 && <p className="soft">Nothing waits for you on this order.</p>}
        <ul>
          {next.map((unit) => (
            <li key={unit.id}>
              <Link to={`/bench/${unit.id}`}>
                <span className={classes['serial']}>{unit.serial}</span>{' '}
                {unit.step === null ? 'Check in' : stepTitle(unit.step)}
              </Link>
            </li>
          ))}
        </ul>
      </section>
      {held.length > 0 && (
        <section className={`${classes['card']} ${classes['held']}`}>
          <h2 className="cap">Held</h2>
          <ul>
            {held.slice(0, SHOWN).map((unit) => (
              <li key={unit.id}>
                <Link to={`/bench/${unit.id}`}>
                  <span className={classes['serial']}>{unit.serial}</span> {unit.heldWords}
                </Link>
              </li>
            ))}
          </ul>
          {held.length > SHOWN && <p className="soft">and {held.length - SHOWN} more, marked in the ranks</p>}
        </section>
      )}
      {odd.length > 0 && (
        <section className={`${classes['card']} ${classes['odd']}`}>
          <h2 className="cap">Unlike their family</h2>
          <ul>
            {odd.slice(0, SHOWN).map((unit) => (
              <li key={unit.id}>
                <Link to={unit.status === 'sealed' ? `/ledger/${unit.visitId}` : `/bench/${unit.id}`}>
                  <span className={classes['serial']}>{unit.serial}</span> {unit.odd}
                </Link>
              </li>
            ))}
          </ul>
          {odd.length > SHOWN && <p className="soft">and {odd.length - SHOWN} more</p>}
          <p className="soft">
            The next ones are run in full. A lead may <Link to="/library/learnt">say why it is left out</Link>.
          </p>
        </section>
      )}
    </aside>
  );
}
