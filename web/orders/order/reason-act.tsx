import { TextInput } from '@mantine/core';
import { useState } from 'react';
import { ActButton } from '../../ui/act-button.js';
import classes from './order-page.module.css';

export interface ReasonActProps {
  readonly label: string;
  readonly act: string;
  readonly busy: boolean;
  readonly error: string | undefined;
  readonly onAct: (words: string) => void;
  readonly look?: 'main' | 'quiet' | 'care';
}

/** An act that wants its reason in writing. */
export function ReasonAct({ label, act, busy, error, onAct, look = 'quiet' }: ReasonActProps) {
  const [words, setWords] = useState('');
  const [slip, setSlip] = useState<string | undefined>(undefined);
  const submit = () => {
    if (words.trim().length < 3) return setSlip('Say in a few words why.');
    setSlip(undefined);
    onAct(words.trim());
  };
  return (
    <form
      className={classes['decide']}
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <TextInput
        label={label}
        value={words}
        onChange={(e) => setWords(e.target.value)}
        error={slip ?? error}
        maxLength={500}
      />
      <ActButton type="submit" look={look} busy={busy} onAct={() => undefined}>
        {act}
      </ActButton>
    </form>
  );
}
