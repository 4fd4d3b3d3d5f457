import { Component, useEffect, type ReactNode } from 'react';
import { useOutbox } from '../outbox/use-outbox.js';
import { takeRelease } from '../state/new-release.js';
import { serverAnswers } from '../state/watch-reach.js';
import { Notice } from './notice.js';
import { PartMissing } from './part-missing.js';

interface Failed {
  readonly error: unknown;
}

/** Stands where a place could not be shown, and says what is safe; the places beside it go on. */
export class PlaceBoundary extends Component<{ readonly children: ReactNode }, { readonly failed: Failed | null }> {
  override state: { readonly failed: Failed | null } = { failed: null };

  static getDerivedStateFromError(error: unknown): { readonly failed: Failed } {
    return { failed: { error } };
  }

  override render(): ReactNode {
    const { failed } = this.state;
    if (failed === null) return this.props.children;
    return failed.error instanceof PartMissing ? <NotFetched /> : <Faulty />;
  }
}

/** How often it is looked whether the server is back. */
const LOOK_MS = 4_000;

/** It looks by itself whether the server answers again, and then loads the page anew: what was not sent waits on this device. */
function NotFetched() {
  const waiting = useOutbox().entries.length;
  useEffect(() => {
    const looking = setInterval(() => void reloadIfBack(), LOOK_MS);
    return () => clearInterval(looking);
  }, []);
  const kept =
    waiting === 0
      ? 'What was entered before is safe.'
      : `${waiting === 1 ? 'One entry waits' : `${waiting} entries wait`} on this device and will be sent.`;
  return (
    <Notice
      kind="stop"
      title="This place could not be loaded"
      says={`The server does not answer, or it has a newer release than this page. ${kept} As soon as the server answers, the page is loaded anew.`}
      act={{ label: 'Load it now', onAct: () => void takeRelease() }}
      page
    />
  );
}

/** A fault of ours: loading it anew by itself might go round for ever. */
const Faulty = () => (
  <Notice
    kind="stop"
    title="This place cannot be shown"
    says="Something in it is wrong, and that is not your doing. What was entered before is safe. Load it again; if it comes back, tell whoever runs Decurio which unit or order it was."
    act={{ label: 'Load it again', onAct: () => window.location.reload() }}
    page
  />
);

/** Only where the page itself can be had: a reload into nothing would lose what is on the screen. */
async function reloadIfBack(): Promise<void> {
  if (await serverAnswers()) await takeRelease();
}
