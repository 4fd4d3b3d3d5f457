import { api } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { DoorPage } from '../door-page.js';
import classes from '../sign-in.module.css';
import { OwnPassword } from './own-password.js';

/** All that a password given by somebody else opens: the page where it is replaced. */
export function PasswordForOncePage({ name }: { readonly name: string }) {
  const [leave] = api.useSignOutMutation();
  return (
    <DoorPage title="Choose your own password">
      <p className="soft">
        {name}, the one you signed in with was given to you, so somebody else knows it. Entries are made in your name:
        nothing else opens until it is replaced.
      </p>
      <div className={classes['form']}>
        <OwnPassword />
        <ActButton onAct={() => void leave(null)}>Sign out</ActButton>
      </div>
    </DoorPage>
  );
}
