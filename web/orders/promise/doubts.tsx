import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import type { Doubt, Promised } from './promise.js';
import classes from './order-form.module.css';

export interface DoubtsProps {
  readonly doubts: readonly Doubt[];
  readonly promised: Promised;
  readonly onMend: (promised: Promised) => void;
}

/** What may well be meant and is asked once, before it is taken as it stands. */
export function Doubts({ doubts, promised, onMend }: DoubtsProps) {
  if (doubts.length === 0) return null;
  return (
    <div className={classes['doubts']} role="group" aria-label="Look once more">
      {doubts.map((doubt) => (
        <div key={doubt.id}>
          <Notice kind="care" says={doubt.says} />
          {doubt.mends && (
            <ActButton onAct={() => doubt.mends && onMend(doubt.mends.as(promised))}>{doubt.mends.words}</ActButton>
          )}
        </div>
      ))}
    </div>
  );
}
