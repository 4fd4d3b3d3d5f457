import { useEffect, useRef } from 'react';
import { Link, useLocation } from 'react-router';
import { speak } from '../../ui/speak.js';
import { useNow, useAtHand } from '../../state/use-at-hand.js';
import classes from './calls-back.module.css';

/** On the strap: units whose wait is over, whatever page is open. */
export function CallsBack() {
  const units = useAtHand();
  const now = useNow(units);
  const { pathname } = useLocation();
  const back = units.filter(
    ({ unitId, restart }) =>
      restart?.until !== null && restart !== null && (restart.until ?? 0) <= now && !pathname.endsWith(unitId),
  );
  const told = useRef(new Set<string>());
  useEffect(() => {
    for (const { unitId, serial, restart } of back) {
      const wait = `${unitId} ${restart?.until ?? 0}`;
      if (told.current.has(wait)) continue;
      told.current.add(wait);
      speak(`${serial} is ready`);
    }
  });
  return (
    <span role="status" className={classes['back']}>
      {back.map(({ unitId, serial }) => (
        <Link key={unitId} to={`/bench/${unitId}`}>
          {serial} is ready
        </Link>
      ))}
    </span>
  );
}
