import { Dialog } from '../ui/dialog.js';
import { SignInForm } from './sign-in-form.js';

/** Lies over the page when a session ended: what was entered stays where it is. */
export const SignInAgain = () => (
  <Dialog mustBeAnswered onClose={() => undefined} title="You were signed out">
    <p>Sign in again. What you entered is still on this page.</p>
    <SignInForm start={{ name: '', password: '' }} />
  </Dialog>
);
