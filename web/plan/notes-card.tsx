import { Link } from 'react-router';
import type { PlanView } from '@decurio/contract';
import { useSession } from '../state/session.js';
import { saveFile } from '../ui/save-file.js';
import { serialOf, WHY_UNPLACED } from './plan-words.js';
import classes from './plan-cards.module.css';

const SHOWN = 4;

/** What should be known of the plan, what could not be laid out, and the plan as files. */
export function NotesCard({ plan }: { readonly plan: PlanView }) {
  const { who } = useSession();
  const you = plan.people.find(({ isYou }) => isYou);
  const download = async (url: string, name: string, type: string) => {
    const answer = await fetch(url);
    if (answer.ok) saveFile(name, await answer.text(), type);
  };
  return (
    <section className={classes['card']} aria-label="To be known">
      {plan.unplaced.length > 0 && (
        <>
          <h2 className="cap">Not laid out</h2>
          <ul className={classes['moved']}>
            {plan.unplaced.slice(0, SHOWN).map(({ unitId, why }) => (
              <li key={unitId}>
                <b className="num">{serialOf(plan, unitId)}</b> {WHY_UNPLACED[why]}
              </li>
            ))}
            {plan.unplaced.length > SHOWN && <li className="soft">and {plan.unplaced.length - SHOWN} more</li>}
          </ul>
        </>
      )}
      {plan.notes.length > 0 && <h2 className="cap">To be known</h2>}
      <ul className={classes['moved']}>
        {plan.notes.map(({ code, says }) => (
          <li key={code}>{says}</li>
        ))}
      </ul>
      <p className={classes['files']}>
        {who?.role !== 'technician' && <Link to="/plan/afterwards">Planned against real</Link>}
        <button type="button" onClick={() => void download('/api/plan.csv', 'plan.csv', 'text/csv')}>
          As a table
        </button>
        {you && (
          <button
            type="button"
            onClick={() => void download(`/api/plan/people/${you.id}/day.ics`, `${you.id}.ics`, 'text/calendar')}
          >
            Your work in a calendar
          </button>
        )}
      </p>
    </section>
  );
}
