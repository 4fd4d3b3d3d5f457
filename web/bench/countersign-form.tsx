import { PasswordInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import { secondSignature, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { recordTime, useClock } from '../state/clock.js';
import { ActButton } from '../ui/act-button.js';
import { Notice } from '../ui/notice.js';
import { whenClock } from '../ui/when.js';
import classes from './panel.module.css';

/** A second person signs beside the first on the same stand, with their own password; the first stays signed in. */
export function CountersignForm({ bench, state }: { readonly bench: BenchView; readonly state: VisitState }) {
  const [countersign, { isLoading, error }] = api.useCountersignMutation();
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const clock = useClock();
  const problem = asProblem(error);
  const second = secondSignature(state);
  if (second)
    return (
      <Notice
        kind="done"
        says={`${second.by.name}, ${second.by.role}, signed beside you at ${whenClock(second.at)}.`}
      />
    );
  const sign = async () => {
    await countersign({
      unitId: bench.unit.id,
      visitId: state.visitId,
      body: {
        id: crypto.randomUUID(),
        seq: state.seq + 1,
        at: recordTime(clock),
        name: name.trim(),
        password,
        words: '',
      },
    });
    setPassword('');
  };
  return (
    <section className={classes['second']} aria-label="Second signature">
      {state.countersigned && (
        <Notice
          kind="care"
          says={`${state.countersigned.by.name} signed beside at ${whenClock(state.countersigned.at)}, and something was written since: they look at it and sign once more.`}
        />
      )}
      <p>House rules ask for a second person. They sign here with their own name and password; you stay signed in.</p>
      <div className={classes['row']}>
        <TextInput
          label="Second person"
          value={name}
          onChange={(event) => setName(event.target.value)}
          autoComplete="off"
          maxLength={60}
          data-scan-guard="words"
        />
        <PasswordInput
          label="Their password"
          value={password}
          onChange={(event) => setPassword(event.target.value)}
          autoComplete="off"
          maxLength={200}
          data-scan-guard="words"
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            // Within the form that seals: this Enter is theirs alone.
            event.preventDefault();
            if (name.trim() !== '' && password !== '') void sign();
          }}
        />
      </div>
      {problem && <Notice kind="stop" says={problem.message} />}
      <div className={classes['acts']}>
        <ActButton busy={isLoading} disabled={name.trim() === '' || password === ''} onAct={() => void sign()}>
          Sign beside
        </ActButton>
      </div>
    </section>
  );
}
