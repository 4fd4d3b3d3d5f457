import { useState } from 'react';
import type { DemoAccount } from '@decurio/contract';
import { FirstOwnerPage } from './accounts/first-owner-page.js';
import { DoorPage } from './door-page.js';
import { SignInForm, type Credentials } from './sign-in-form.js';
import classes from './sign-in.module.css';

const NOTHING: Credentials = { name: '', password: '' };

interface SignInProps {
  readonly demoAccounts: readonly DemoAccount[];
  /** Nobody is there who could sign in. */
  readonly needsOwner: boolean;
}

/** The page before anyone is signed in. */
export function SignIn({ demoAccounts, needsOwner }: SignInProps) {
  const [start, setStart] = useState(NOTHING);
  const [isMade, setIsMade] = useState(false);
  if (needsOwner && !isMade)
    return (
      <FirstOwnerPage
        onMade={(owner) => {
          setStart(owner);
          setIsMade(true);
        }}
      />
    );
  return (
    <DoorPage
      title="Sign in to your bay"
      beside={
        demoAccounts.length > 0 && (
          <section className={classes['demo']} aria-label="Demo accounts">
            <h2>Demo scenario</h2>
            <p>
              Saltmarsh Mobility prepares hire fleets at Port Isel. Everything in it is invented. Take one of its
              people:
            </p>
            <ul>
              {demoAccounts.map((account) => (
                <li key={account.name}>
                  <button type="button" onClick={() => setStart({ name: account.name, password: account.password })}>
                    <strong>{account.displayName}</strong>
                    <span>{account.role}</span>
                    <span className="num">
                      {account.name} / {account.password}
                    </span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        )
      }
    >
      <SignInForm key={start.name} start={start} />
    </DoorPage>
  );
}
