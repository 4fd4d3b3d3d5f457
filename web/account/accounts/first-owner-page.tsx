import { PasswordInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import { PASSWORD_LENGTH } from '@decurio/contract';
import { asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import type { Credentials } from '../sign-in-form.js';
import { DoorPage } from '../door-page.js';
import classes from '../sign-in.module.css';
import { accountsApi } from './accounts-api.js';

const NOTHING = { code: '', displayName: '', signInName: '', password: '' };
const FIELDS = ['code', 'displayName', 'signInName', 'password'] as const;

/** A house that nobody can sign in to yet: whoever set its server up becomes its owner. */
export function FirstOwnerPage({ onMade }: { readonly onMade: (owner: Credentials) => void }) {
  const [make, making] = accountsApi.useMakeFirstOwnerMutation();
  const [typed, setTyped] = useState(NOTHING);
  const problem = asProblem(making.error);
  const fields = problem?.fields ?? {};
  const set = (name: (typeof FIELDS)[number]) => (event: { target: { value: string } }) =>
    setTyped({ ...typed, [name]: event.target.value });
  const isWhole = FIELDS.every((name) => typed[name].trim() !== '') && typed.password.length >= PASSWORD_LENGTH.least;
  return (
    <DoorPage title="Whose house is this?">
      <p className="soft">
        Nobody can sign in yet. Whoever started the server read a code there; with it the first owner is made, who then
        lets others in.
      </p>
      <form
        className={classes['form']}
        onSubmit={(event) => {
          event.preventDefault();
          void make(typed).then((answer) => {
            if (!answer.error) onMade({ name: typed.signInName.trim(), password: typed.password });
          });
        }}
      >
        <TextInput
          label="The code that the server printed"
          value={typed.code}
          onChange={set('code')}
          maxLength={40}
          autoComplete="off"
          autoCapitalize="none"
          autoFocus
          error={fields['code']}
          required
        />
        <TextInput
          label="Your name in records"
          description="As certificates are to say it"
          value={typed.displayName}
          onChange={set('displayName')}
          maxLength={80}
          error={fields['displayName']}
          required
        />
        <TextInput
          label="You sign in as"
          value={typed.signInName}
          onChange={set('signInName')}
          maxLength={40}
          autoComplete="username"
          autoCapitalize="none"
          error={fields['signInName']}
          required
        />
        <PasswordInput
          label="Your password"
          description={`At least ${PASSWORD_LENGTH.least} characters. A few words that belong together for you alone do well.`}
          value={typed.password}
          onChange={set('password')}
          autoComplete="new-password"
          error={fields['password']}
          required
        />
        {problem && Object.keys(fields).length === 0 && <Notice kind="stop" says={problem.message} />}
        <ActButton type="submit" look="main" busy={making.isLoading} disabled={!isWhole} onAct={() => undefined}>
          Make the first owner
        </ActButton>
      </form>
    </DoorPage>
  );
}
