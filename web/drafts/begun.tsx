import { IconHistory } from '@tabler/icons-react';
import { whenClock } from '../ui/when.js';
import type { Draft } from './use-draft.js';
import classes from './begun.module.css';

export interface BegunDraft extends Pick<Draft<object>, 'begunAt' | 'startAfresh'> {
  /** What it was begun on has been changed by somebody since. */
  readonly isOverNewer?: boolean;
}

/** Where a form holds what was typed before: says so, and clears it on request. */
export function Begun({ draft }: { readonly draft: BegunDraft }) {
  if (draft.begunAt === null) return null;
  return (
    <p className={classes['begun']} role="status">
      <IconHistory size={18} aria-hidden="true" />
      <span>
        You had begun this, last at {whenClock(new Date(draft.begunAt).toISOString())}.
        {draft.isOverNewer === true && ' It was changed by somebody since: kept as it stands here, it takes that back.'}
      </span>
      <button type="button" onClick={draft.startAfresh}>
        Start afresh
      </button>
    </p>
  );
}
