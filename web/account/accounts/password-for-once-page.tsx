import { Mark } from '../../ui/mark.js';
import { ActButton } from '../../ui/act-button.js';
import { api } from '../../state/api.js';
import { OwnPassword } from './own-password.js';
import classes from '../sign-in.module.css';

/** All that a password given by somebody else opens: the page where it is replaced. */
export function PasswordForOncePage({ name }: { readonly name: string }) {
  const [leave] = api.useSignOutMutation();
  return (
    <div className={classes['page']}>
      <header className={classes['head']}>
        <Mark />
      </header>
      <main className={classes['columns']}>
        <section className={classes['card']}>
          <h1>Choose your own password</h1>
          <p className="soft">
            {name}, the one you signed in with was given to you, so somebody else knows it. Entries are made in your
            name: nothing else opens until it is replaced.
          </p>
          <div className={classes['form']}>
            <OwnPassword />
            <ActButton onAct={() => void leave(null)}>Sign out</ActButton>
          </div>
        </section>
      </main>
    </div>
  );
}
