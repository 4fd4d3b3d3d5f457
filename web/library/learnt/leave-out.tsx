import { TextInput } from '@mantine/core';
import { useState } from 'react';
import type { LeaveOutRequest } from '@decurio/contract';
import { asProblem } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import classes from './learnt.module.css';

export interface LeaveOutProps {
  readonly unit: { readonly visitId: string; readonly serial: string; readonly leftOut: object | null };
  readonly says: string;
  readonly leave: (request: LeaveOutRequest) => Promise<{ readonly error?: unknown }>;
  readonly leaving: { readonly isLoading: boolean; readonly error?: unknown };
}

/** One unit that may be no measure of the others, which a lead leaves out with the reason or takes in again. */
export function LeaveOut({ unit, says, leave, leaving }: LeaveOutProps) {
  const { who } = useSession();
  const [words, setWords] = useState<string | null>(null);
  const [isSent, setSent] = useState(false);
  const problem = isSent ? asProblem(leaving.error) : null;
  const mayDecide = who !== null && who.role !== 'technician';
  const send = (text: string) => {
    setSent(true);
    void leave({ visitId: unit.visitId, words: text }).then((answer) => {
      if (!answer.error) setWords(null);
    });
  };
  return (
    <li>
      <p>
        <strong>{unit.serial}</strong> {says}
      </p>
      {mayDecide && unit.leftOut && (
        <ActButton busy={leaving.isLoading} onAct={() => send('')}>
          Take it in again
        </ActButton>
      )}
      {mayDecide && !unit.leftOut && words === null && (
        <ActButton onAct={() => setWords('')}>Say why it is left out</ActButton>
      )}
      {words !== null && (
        <form
          className={classes['why']}
          onSubmit={(event) => {
            event.preventDefault();
            send(words.trim());
          }}
        >
          <TextInput
            label="Why it is no measure of the others"
            placeholder="Its tyre was flat"
            value={words}
            onChange={(e) => setWords(e.target.value)}
            maxLength={200}
            minLength={3}
            required
            error={problem?.fields?.['words']}
            autoFocus
          />
          <ActButton type="submit" look="care" busy={leaving.isLoading} onAct={() => undefined}>
            Leave it out
          </ActButton>
          <ActButton onAct={() => setWords(null)}>Let it count</ActButton>
        </form>
      )}
      {problem && !problem.fields && <Notice kind="stop" says={problem.message} />}
    </li>
  );
}
