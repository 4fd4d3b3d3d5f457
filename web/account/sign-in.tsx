import { useState } from 'react';
import type { DemoAccount } from '@decurio/contract';
import { Mark } from '../ui/mark.js';
import { SignInForm, type Credentials } from './sign-in-form.js';
import classes from './sign-in.module.css';

const NOTHING: Credentials = { name: '', password: '' };

/** The page before anyone is signed in. */
export function SignIn({ demoAccounts }: { readonly demoAccounts: readonly DemoAccount[] }) {
  const [start, setStart] = useState(NOTHING);
  return (
    <div className={classes['page']}>
      <header className={classes['head']}>
        <Mark />
      </header>
      <main className={classes['columns']}>
        <section className={classes['card']}>
          <h1>Sign in to your bay</h1>
          <SignInForm key={start.name} start={start} />
        </section>
        {demoAccounts.length > 0 && (
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
        )}
      </main>
    </div>
  );
}
