import { Select, Textarea } from '@mantine/core';
import { useState } from 'react';
import { HOLD_REASONS, type Evidence, type HoldReason } from '@decurio/core';
import { evidenceTitle, evidenceWords } from '../ui/evidence-words.js';
import { ActButton } from '../ui/act-button.js';
import { Begun } from '../drafts/begun.js';
import { useDraft } from '../drafts/use-draft.js';
import type { Visit } from './use-visit.js';
import { Dialog } from '../ui/dialog.js';
import classes from './panel.module.css';

/** Asks for the reason of a hold, from a short list and in words. */
export function HoldDialog({ visit, onClose }: { readonly visit: Visit; readonly onClose: () => void }) {
  const draft = useDraft(`hold.${visit.state?.visitId ?? ''}`, { reason: 'damage' as HoldReason, words: '' });
  const { reason, words } = draft.value;
  const [busy, setBusy] = useState(false);
  const hold = async () => {
    setBusy(true);
    const problem = await visit.act('held', { reason, words: words.trim() });
    setBusy(false);
    if (problem) return;
    draft.forget();
    onClose();
  };
  return (
    <Dialog onClose={onClose} title="Hold this unit">
      <form
        className={classes['stack']}
        onSubmit={(event) => {
          event.preventDefault();
          void hold();
        }}
      >
        <Begun draft={draft} />
        <p>It stays at its step, shows on Line as held, and only a lead releases it.</p>
        <Select
          label="Reason"
          allowDeselect={false}
          value={reason}
          onChange={(value) => draft.change({ reason: (value ?? 'other') as HoldReason })}
          data={Object.entries(HOLD_REASONS).map(([value, label]) => ({ value, label }))}
        />
        <Textarea
          label="In a few words"
          value={words}
          onChange={(e) => draft.change({ words: e.target.value })}
          minLength={3}
          maxLength={500}
          required
          rows={3}
          data-autofocus
        />
        <div className={classes['acts']}>
          <ActButton type="submit" look="care" busy={busy} onAct={() => undefined}>
            Hold it
          </ActButton>
          <ActButton onAct={onClose}>Leave it as it is</ActButton>
        </div>
      </form>
    </Dialog>
  );
}

export interface UndoDialogProps {
  readonly visit: Visit;
  readonly voids: string;
  readonly evidence: readonly Evidence[];
  readonly onClose: () => void;
}

/** Says what is taken back, and that both entries stay in the record. */
export function UndoDialog({ visit, voids, evidence, onClose }: UndoDialogProps) {
  const [busy, setBusy] = useState(false);
  const last = evidence.find((entry) => entry.id === voids);
  const undo = async () => {
    setBusy(true);
    const problem = await visit.act('undone', { voids });
    setBusy(false);
    if (!problem) onClose();
  };
  return (
    <Dialog onClose={onClose} title="Take back the last entry">
      <div className={classes['stack']}>
        <p>
          {last ? (
            <>
              <b>{evidenceTitle(last.kind)}</b> {evidenceWords(last, undefined)}
            </>
          ) : (
            'The entry you made just now.'
          )}
        </p>
        <p className="soft">
          Nothing is erased: a correcting entry is added, and the record keeps both. The vehicle itself is not changed
          by this.
        </p>
        <div className={classes['acts']}>
          <ActButton look="main" busy={busy} onAct={() => void undo()}>
            Take it back
          </ActButton>
          <ActButton onAct={onClose}>Keep it</ActButton>
        </div>
      </div>
    </Dialog>
  );
}
