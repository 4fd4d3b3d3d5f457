import type { PlanMoves, PlanView } from '@decurio/contract';
import { clockOf, MOVED_WHY, serialOf } from './plan-words.js';
import classes from './plan-cards.module.css';

const SHOWN = 5;

/** What moved when the plan was last made anew, and what set it off. */
export function MovedCard({ plan, moves }: { readonly plan: PlanView; readonly moves: PlanMoves }) {
  return (
    <section className={classes['card']} aria-label="What moved">
      <h2 className="cap">Moved at {clockOf(moves.atMs)}</h2>
      <p>{moves.why}</p>
      <MovedList plan={plan} moved={moves.moved} />
    </section>
  );
}

/** Units that stand otherwise, each in a line. */
export function MovedList({ plan, moved }: { readonly plan: PlanView; readonly moved: PlanMoves['moved'] }) {
  const named = moved.filter(({ unitId }) => plan.units.some(({ id }) => id === unitId));
  if (named.length === 0) return <p className="soft">No other unit moves.</p>;
  return (
    <ul className={classes['moved']}>
      {named.slice(0, SHOWN).map((each) => (
        <li key={each.unitId}>
          <b className="num">{serialOf(plan, each.unitId)}</b> {movedWords(plan, each)}
        </li>
      ))}
      {named.length > SHOWN && <li className="soft">and {named.length - SHOWN} more</li>}
    </ul>
  );
}

function movedWords(plan: PlanView, { from, to, why }: PlanMoves['moved'][number]): string {
  const nameOf = (id: string | null): string => plan.people.find((person) => person.id === id)?.name ?? 'nobody';
  if (!to) return MOVED_WHY[why];
  const isOther = from !== null && from.personId !== to.personId;
  const whom = isOther || from === null ? `to ${nameOf(to.personId)}, ` : '';
  const when = from === null ? '' : from.atMs > to.atMs ? 'sooner, ' : 'later, ';
  return `${whom}${isOther ? '' : when}${clockOf(to.atMs)}: ${MOVED_WHY[why]}`;
}
