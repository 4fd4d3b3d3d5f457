import { Link } from 'react-router';
import { stepTitle } from '@decurio/core';
import type { PlanView } from '@decurio/contract';
import { ActButton } from '../ui/act-button.js';
import { Dialog } from '../ui/dialog.js';
import { clockOf, orderNumber, serialOf } from './plan-words.js';
import classes from './plan-cards.module.css';

interface GiveDialogProps {
  readonly plan: PlanView;
  readonly unitId: string;
  readonly mayGive: boolean;
  readonly onGive: (personId: string | null) => void;
  readonly onClose: () => void;
}

/** One unit of the plan: when it is worked on and by whom, and to whom it could be given: what dragging does, by keys. */
export function GiveDialog({ plan, unitId, mayGive, onGive, onClose }: GiveDialogProps) {
  const unit = plan.units.find(({ id }) => id === unitId);
  const bars = plan.bars.filter((bar) => bar.unitId === unitId);
  const nameOf = (id: string | null): string => plan.people.find((person) => person.id === id)?.name ?? '';
  const placeOf = (id: string | null): string => plan.places.find((place) => place.id === id)?.name ?? '';
  if (!unit) return null;
  return (
    <Dialog
      title={`${serialOf(plan, unitId)}, ${unit.typeName}, of ${orderNumber(plan, unit.orderId)}`}
      onClose={onClose}
    >
      <table className={classes['bars']}>
        <tbody>
          {bars.map((bar) => (
            <tr key={`${bar.step} ${bar.fromMs}`}>
              <td className="num">
                {clockOf(bar.fromMs)}–{clockOf(bar.toMs)}
              </td>
              <td>{bar.tone === 'charge' ? 'Charge to full' : stepTitle(bar.step)}</td>
              <td>{[nameOf(bar.personId), placeOf(bar.placeId)].filter((words) => words !== '').join(', ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p>
        <Link to={`/bench/${unitId}`}>To its bench</Link>
      </p>
      {mayGive && (
        <>
          <h3 className="cap">Give it to</h3>
          <div className={classes['give']}>
            {plan.people.map(({ id, name }) => (
              <ActButton key={id} disabled={unit.givenTo === id} onAct={() => onGive(id)}>
                {name}
              </ActButton>
            ))}
            {unit.givenTo !== null && <ActButton onAct={() => onGive(null)}>Leave it to the plan</ActButton>}
          </div>
        </>
      )}
    </Dialog>
  );
}
