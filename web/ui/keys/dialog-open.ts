/**
 * Whether a dialog covers the page. Its own keys act then, and no others, wherever the focus lies: after a click beside a
 * field it lies on the body, and a key meant for the dialog must not reach the step beneath.
 */
export const isDialogOpen = (): boolean => document.querySelector('[role="dialog"][aria-modal="true"]') !== null;
