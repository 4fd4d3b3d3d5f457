import { Modal } from '@mantine/core';
import { SignInForm } from './sign-in-form.js';

/** Lies over the page when a session ended: what was entered stays where it is. */
export const SignInAgain = () => (
  <Modal opened onClose={() => undefined} withCloseButton={false} title="You were signed out" centered>
    <p>Sign in again. What you entered is still on this page.</p>
    <SignInForm start={{ name: '', password: '' }} />
  </Modal>
);
