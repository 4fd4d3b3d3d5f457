import { IconHistory } from '@tabler/icons-react';
import { whenClock } from '../ui/when.js';
import type { Draft } from './use-draft.js';
import classes from './begun.module.css';

/** Where a form holds what was typed before: says so, and clears it on request. */
export function Begun({ draft }: { readonly draft: Pick<Draft<object>, 'begunAt' | 'startAfresh'> }) {
  if (draft.begunAt === null) return null;
  return (
    <p className={classes['begun']} role="status">
      <IconHistory size={18} aria-hidden="true" />
      <span>You had begun this, last at {whenClock(new Date(draft.begunAt).toISOString())}.</span>
      <button type="button" onClick={draft.startAfresh}>
        Start afresh
      </button>
    </p>
  );
}
