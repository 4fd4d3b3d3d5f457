import { Modal, TextInput } from '@mantine/core';
import { useState } from 'react';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
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
  const [words, setWords] = useState('');
  const problem = asProblem(beginning.error);
  return (
    <Modal opened onClose={onClose} title={`A new batch of ${tyre} begins?`} centered>
      <form
        className={classes['stack']}
        onSubmit={(event) => {
          event.preventDefault();
          void begin({ typeId, tyre, words: words.trim() }).then((answer) => {
            if (!answer.error) onClose();
          });
        }}
      >
        <p>
          What was run before stays in the records and tells nothing of the next units: they are run until eight were.
        </p>
        <TextInput
          label="What is new"
          placeholder="Delivery of November, another maker"
          value={words}
          onChange={(e) => setWords(e.target.value)}
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
    </Modal>
  );
}
