import { Textarea } from '@mantine/core';
import { useState } from 'react';
import { HOLD_REASONS, type VisitState } from '@decurio/core';
import { useSession } from '../state/session.js';
import { ActButton } from '../ui/act-button.js';
import { Notice } from '../ui/notice.js';
import { whenClock } from '../ui/when.js';
import type { Visit } from './use-visit.js';
import classes from './panel.module.css';

/** A held unit: why, since when, and, for a lead, the words with which it may go on. */
export function Held({ state, visit }: { readonly state: VisitState; readonly visit: Visit }) {
  const { who } = useSession();
  const [words, setWords] = useState('');
  const [busy, setBusy] = useState(false);
  if (!state.held) return null;
  const { reason, words: why, at, by } = state.held;
  const mayRelease = who !== null && who.role !== 'technician';
  const release = async () => {
    setBusy(true);
    await visit.act('released', { words: words.trim() });
    setBusy(false);
  };
  return (
    <div className={classes['panel']}>
      <Notice kind="stop" title={`Held: ${HOLD_REASONS[reason].toLowerCase()}`} says={why} />
      <p className={classes['lead']}>
        Held by {by.name} at {whenClock(at)}. Nothing more is keyed or read until a lead releases it in writing.
      </p>
      {mayRelease ? (
        <form
          className={classes['stack']}
          onSubmit={(event) => {
            event.preventDefault();
            void release();
          }}
        >
          <Textarea label="Why it may go on" description="Stands in the record under your name." value={words} onChange={(e) => setWords(e.target.value)} minLength={3} maxLength={500} required rows={3} />
          <div className={classes['acts']}>
            <ActButton type="submit" look="main" busy={busy} onAct={() => undefined}>
              Release
            </ActButton>
          </div>
        </form>
      ) : (
        <p className="soft">Call a lead, or put the unit aside and scan the next one.</p>
      )}
    </div>
  );
}
