import { TextInput } from '@mantine/core';
import { useState } from 'react';
import { ActButton } from './act-button.js';
import { Begun } from '../drafts/begun.js';
import { useDraft } from '../drafts/use-draft.js';
import classes from './reason-act.module.css';

export interface ReasonActProps {
  /** Under which the words are kept until they were taken. */
  readonly place: string;
  readonly label: string;
  readonly act: string;
  readonly busy: boolean;
  readonly error: string | undefined;
  /** Settles with whether it was taken. */
  readonly onAct: (words: string) => Promise<boolean>;
  readonly look?: 'main' | 'quiet' | 'care';
}

/** An act that wants its reason in writing. */
export function ReasonAct({ place, label, act, busy, error, onAct, look = 'quiet' }: ReasonActProps) {
  const draft = useDraft(place, { words: '' });
  const { words } = draft.value;
  const [slip, setSlip] = useState<string | undefined>(undefined);
  const submit = async () => {
    if (words.trim().length < 3) return setSlip('Say in a few words why.');
    setSlip(undefined);
    if (await onAct(words.trim())) draft.startAfresh();
  };
  return (
    <form
      className={classes['form']}
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <TextInput
        label={label}
        value={words}
        onChange={(e) => draft.change({ words: e.target.value })}
        error={slip ?? error}
        maxLength={500}
      />
      <Begun draft={draft} />
      <ActButton type="submit" look={look} busy={busy} onAct={() => undefined}>
        {act}
      </ActButton>
    </form>
  );
}
