import type { BenchView } from '@decurio/contract';
import { ActButton } from '../ui/act-button.js';
import { Notice } from '../ui/notice.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import type { Visit } from './use-visit.js';
import classes from './panel.module.css';

/** A unit nobody has begun: the visit opens with one key. */
export function BeginVisit({ bench, visit }: { readonly bench: BenchView; readonly visit: Visit }) {
  useHotkeys({ Space: visit.isBeginning ? undefined : () => void visit.begin() });
  return (
    <div className={classes['panel']}>
      <p className="cap">On the stand</p>
      <h2 className={classes['title']}>{bench.unit.serial} has not been begun</h2>
      <p className={classes['lead']}>
        Hold the serial on the frame against this one. Beginning works out every code for {bench.className} and opens
        the record.
      </p>
      {bench.unit.returnedWhy !== null && (
        <Notice kind="care" title="It was done and came back" says={bench.unit.returnedWhy} />
      )}
      {bench.notes !== '' && <Notice kind="note" title={`Notes on order ${bench.orderNumber}`} says={bench.notes} />}
      <ul className={classes['cautions']}>
        {bench.type.cautions.map((caution) => (
          <li key={caution}>{caution}</li>
        ))}
      </ul>
      <div className={classes['acts']}>
        <ActButton look="main" hotkey="Space" busy={visit.isBeginning} onAct={() => void visit.begin()}>
          Begin with check in
        </ActButton>
      </div>
    </div>
  );
}
