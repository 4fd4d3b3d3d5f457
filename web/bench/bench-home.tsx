import { Link } from 'react-router';
import { stepTitle } from '@decurio/core';
import { api } from '../state/api.js';
import { useSession } from '../state/session.js';
import { StepLadderMarks } from '../ui/step-ladder-marks.js';
import { KeptHere } from './kept-here.js';
import classes from './bench-home.module.css';

/** Bench before a unit is on it: scan one, or go on with one of yours. */
export function BenchHome() {
  const { who } = useSession();
  const orders = api.useOrdersQuery(undefined);
  return (
    <div className={classes['home']}>
      <h1>Scan a unit to put it on this bench</h1>
      <p className="soft">
        Point the scanner at the serial on the frame, from any page. Without a scanner press / and type it, then Enter.
      </p>
      <KeptHere />
      {orders.data?.items
        .filter((order) => order.sealed < order.units)
        .slice(0, 4)
        .map((order) => (
          <Begun key={order.id} orderId={order.id} me={who?.name ?? ''} />
        ))}
    </div>
  );
}

function Begun({ orderId, me }: { readonly orderId: string; readonly me: string }) {
  const line = api.useLineQuery(orderId);
  const mine = line.data?.units.filter((unit) => unit.status === 'open' && unit.worker === me) ?? [];
  if (!line.data || mine.length === 0) return null;
  return (
    <section className={classes['begun']}>
      <h2 className="cap">
        Begun by you · order {line.data.order.number}, {line.data.order.customer}
      </h2>
      <ul>
        {mine.slice(0, 8).map((unit) => (
          <li key={unit.id}>
            <Link to={`/bench/${unit.id}`}>
              <span className={classes['serial']}>{unit.serial}</span>
              <span>{unit.step === null ? '' : stepTitle(unit.step)}</span>
              <StepLadderMarks ladder={unit.ladder} />
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
