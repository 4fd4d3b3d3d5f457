import { PasswordInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import { ActButton } from '../ui/act-button.js';
import { Notice } from '../ui/notice.js';
import { api, asProblem } from '../state/api.js';
import classes from './sign-in.module.css';

const BAY_KEY = 'decurio.station';

export interface Credentials {
  readonly name: string;
  readonly password: string;
}

/** Name, password, and the bay at which one works; the bay is remembered on this device. */
export function SignInForm({ start }: { readonly start: Credentials }) {
  const [signIn, { isLoading, error }] = api.useSignInMutation();
  const [name, setName] = useState(start.name);
  const [password, setPassword] = useState(start.password);
  const [station, setStation] = useState(() => localStorage.getItem(BAY_KEY) ?? 'bay 1');
  const problem = asProblem(error);
  return (
    <form
      className={classes['form']}
      onSubmit={(event) => {
        event.preventDefault();
        localStorage.setItem(BAY_KEY, station);
        void signIn({ name: name.trim(), password, station: station.trim() });
      }}
    >
      <TextInput
        label="Name"
        name="name"
        value={name}
        onChange={(e) => setName(e.target.value)}
        autoComplete="username"
        autoFocus={start.name === ''}
        required
        error={problem?.fields?.['name']}
      />
      <PasswordInput
        label="Password"
        name="password"
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        autoComplete="current-password"
        required
        error={problem?.fields?.['password']}
      />
      <TextInput
        label="Where you work"
        name="station"
        description="Stands in every entry you make, such as bay 2"
        value={station}
        onChange={(e) => setStation(e.target.value)}
        maxLength={40}
        required
      />
      {problem && <Notice kind="stop" says={problem.message} />}
      <ActButton type="submit" look="main" busy={isLoading} onAct={() => undefined}>
        Sign in
      </ActButton>
    </form>
  );
}
