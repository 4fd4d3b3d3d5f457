import { TextInput } from '@mantine/core';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import { Notice } from '../../ui/notice.js';
import { Dialog } from '../../ui/dialog.js';
import classes from './learnt.module.css';

/** Other tyres under the same marking: units are learnt anew from here. */
export function NewBatchDialog({
  typeId,
  tyre,
  onClose,
}: {
  readonly typeId: string;
  readonly tyre: string;
  readonly onClose: () => void;
}) {
  const [begin, beginning] = api.useBeginBatchMutation();
  const draft = useDraft(`batch.${typeId}.${tyre}`, { words: '' });
  const { words } = draft.value;
  const problem = asProblem(beginning.error);
  return (
    <Dialog onClose={onClose} title={`A new batch of ${tyre} begins?`}>
      <form
        className={classes['stack']}
        onSubmit={(event) => {
          event.preventDefault();
          void begin({ typeId, tyre, words: words.trim() }).then((answer) => {
            if (answer.error) return;
            draft.forget();
            onClose();
          });
        }}
      >
        <Begun draft={draft} />
        <p>
          What was run before stays in the records and tells nothing of the next units: they are run until eight were.
        </p>
        <TextInput
          label="What is new"
          placeholder="Delivery of November, another maker"
          value={words}
          onChange={(e) => draft.change({ words: e.target.value })}
          maxLength={200}
          error={problem?.fields?.['words']}
          data-autofocus
        />
        {problem && !problem.fields && <Notice kind="stop" says={problem.message} />}
        <div className={classes['acts']}>
          <ActButton type="submit" look="care" busy={beginning.isLoading} onAct={() => undefined}>
            Learn anew from here
          </ActButton>
          <ActButton onAct={onClose}>Leave it</ActButton>
        </div>
      </form>
    </Dialog>
  );
}
