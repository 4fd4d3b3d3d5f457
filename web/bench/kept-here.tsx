import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { keptUnits } from '../state/kept-answers.js';
import { useReach } from '../state/reach.js';
import classes from './bench-home.module.css';

const MOST = 12;

/** While the server does not answer: the begun units that this device can go on with. */
export function KeptHere() {
  const isAway = useReach().awaySince !== null;
  const [units, setUnits] = useState<Awaited<ReturnType<typeof keptUnits>>>([]);
  useEffect(() => {
    if (isAway) void keptUnits().then(setUnits);
  }, [isAway]);
  if (!isAway || units.length === 0) return null;
  return (
    <section className={classes['begun']} aria-label="Kept on this device">
      <h2 className="cap">These go on without the server</h2>
      <ul>
        {units.slice(0, MOST).map(({ id, serial }) => (
          <li key={id}>
            <Link to={`/bench/${id}`}>
              <span className={classes['serial']}>{serial}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
