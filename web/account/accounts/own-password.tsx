import { PasswordInput } from '@mantine/core';
import { useState } from 'react';
import { useDispatch } from 'react-redux';
import { PASSWORD_LENGTH } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import type { AppDispatch } from '../../state/store.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import { accountsApi } from './accounts-api.js';
import classes from './accounts.module.css';

/** Chooses a password of one's own, given the one that stands. */
export function OwnPassword() {
  const dispatch = useDispatch<AppDispatch>();
  const [change, changing] = accountsApi.useChangeOwnPasswordMutation();
  const [typed, setTyped] = useState({ current: '', next: '' });
  const problem = asProblem(changing.error);
  const fields = problem?.fields ?? {};
  const send = async () => {
    const answer = await change(typed);
    if (answer.error) return;
    setTyped({ current: '', next: '' });
    // Who is signed in is told anew: a password for once is one no more.
    void dispatch(api.endpoints.welcome.initiate(null, { forceRefetch: true, subscribe: false }));
  };
  return (
    <form
      className={classes['own']}
      aria-label="Your password"
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <PasswordInput
        label="The password you have now"
        value={typed.current}
        onChange={(e) => setTyped({ ...typed, current: e.target.value })}
        autoComplete="current-password"
        error={fields['current']}
        required
      />
      <PasswordInput
        label="The new one"
        description={`At least ${PASSWORD_LENGTH.least} characters. A few words that belong together for you alone do well.`}
        value={typed.next}
        onChange={(e) => setTyped({ ...typed, next: e.target.value })}
        autoComplete="new-password"
        error={fields['next']}
        required
      />
      {problem && Object.keys(fields).length === 0 && <Notice kind="stop" says={problem.message} />}
      {changing.isSuccess && typed.next === '' && (
        <Notice kind="done" says="It holds from now on. Wherever else you were signed in you are not any more." />
      )}
      <div className={classes['acts']}>
        <ActButton
          type="submit"
          look="main"
          busy={changing.isLoading}
          disabled={typed.current === '' || typed.next.length < PASSWORD_LENGTH.least}
          onAct={() => undefined}
        >
          Change it
        </ActButton>
      </div>
    </form>
  );
}
