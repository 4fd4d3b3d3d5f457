import { Textarea } from '@mantine/core';
import { ActButton } from '../../ui/act-button.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import type { Visit } from '../use-visit.js';
import { Dialog } from '../../ui/dialog.js';
import measuring from '../../measuring/measuring.module.css';
import classes from './calibrate.module.css';

/** Speed held against a reference by other means, in words, or openly not at all. */
export function LeaveOutStep({ visit, onClose }: { readonly visit: Visit; readonly onClose: () => void }) {
  const draft = useDraft(`leaveOut.${visit.state?.visitId ?? ''}`, { words: '' });
  const { words } = draft.value;
  const done = words.trim() !== '';
  const go = () => {
    draft.forget();
    void visit.act('stepByHand', { step: 'calibrate', done, words: words.trim() });
    onClose();
  };
  return (
    <Dialog onClose={onClose} title="Leave Calibrate without readings?">
      <form
        className={classes['stack']}
        onSubmit={(event) => {
          event.preventDefault();
          go();
        }}
      >
        <Begun draft={draft} />
        <p>
          A nominal wheel size is rarely right, and the cap counts in the shown speed. Readings already kept stay in the
          record.
        </p>
        <Textarea
          label="Done by hand"
          description="Against which reference, at what speeds, what came out. Left empty, every paper says that true speed was not measured."
          value={words}
          onChange={(e) => draft.change({ words: e.target.value })}
          onKeyDown={(event) => {
            if (event.key !== 'PageDown' && (event.key !== 'Enter' || event.shiftKey)) return;
            event.preventDefault();
            go();
          }}
          rows={3}
          maxLength={500}
          data-scan-guard="words"
          data-autofocus
        />
        <div className={measuring['entryActs']}>
          <ActButton type="submit" look="care" hotkey="Enter" onAct={() => undefined}>
            {done ? 'Done by hand, to prove' : 'Left out, to prove'}
          </ActButton>
          <ActButton onAct={onClose}>Back to the readings</ActButton>
        </div>
      </form>
    </Dialog>
  );
}
