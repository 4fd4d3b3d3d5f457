import { Textarea } from '@mantine/core';
import { useState } from 'react';
import { PARTS, type Judgement, type ProvingTest, type VisitState } from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import { useDraft } from '../../drafts/use-draft.js';
import { mayAct } from '../../ui/keys/bounce.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import { Notice } from '../../ui/notice.js';
import type { Visit } from '../use-visit.js';
import panel from '../panel.module.css';

type Against = Judgement & { readonly verdict: 'doesNot' };

/** It does not show what it should: what that means, what mends it, and the key that goes there. */
export function DoesNot({
  test,
  judgement,
  state,
  visit,
}: {
  readonly test: ProvingTest;
  readonly judgement: Against;
  readonly state: VisitState;
  readonly visit: Visit;
}) {
  const { cure, says } = judgement;
  const [busy, setBusy] = useState(false);
  const run = async (acting: Promise<unknown>) => {
    setBusy(true);
    await acting;
    setBusy(false);
  };
  const misread = () => void run(visit.act('proofAgain', { test: test.id, mended: null, words: '' }));
  const hold = () =>
    void run(visit.act('held', { reason: 'proof', words: `${test.title}: ${says} ${cure.says}`.slice(0, 500) }));
  const back = () => {
    const to = cure.way === 'calibrate' ? 'calibrate' : 'restart';
    void run(visit.act('wentBack', { test: test.id, to, words: '' }));
  };
  const goes = cure.way === 'calibrate' || cure.way === 'readAgain';
  useHotkeys({ Space: goes ? back : cure.way === 'hold' ? hold : undefined, A: misread, K: hold });
  return (
    <div className={panel['stack']}>
      <Notice kind="stop" title={`It does not: ${says}`} says={cure.says} />
      {cure.way === 'part' && cure.part !== null && <Mended test={test} state={state} part={cure.part} visit={visit} />}
      <div className={panel['acts']}>
        {goes && (
          <ActButton look="main" hotkey="Space" busy={busy} onAct={back}>
            {cure.way === 'calibrate' ? 'Back to calibrate' : `Restart it, and read ${cure.labels.join(', ')} again`}
          </ActButton>
        )}
        {cure.way === 'hold' && (
          <ActButton look="main" hotkey="Space" busy={busy} onAct={hold}>
            Hold it for a lead
          </ActButton>
        )}
        <ActButton hotkey="A" disabled={busy} onAct={misread}>
          Seen wrongly, try again
        </ActButton>
        {cure.way !== 'hold' && (
          <ActButton look="care" hotkey="K" disabled={busy} onAct={hold}>
            Hold it with these words
          </ActButton>
        )}
      </div>
    </div>
  );
}

/** What was put right, in words; whatever else leans on that part is tried again too. */
function Mended({
  test,
  state,
  part,
  visit,
}: {
  readonly test: ProvingTest;
  readonly state: VisitState;
  readonly part: keyof typeof PARTS;
  readonly visit: Visit;
}) {
  const draft = useDraft(`mended.${state.visitId}.${test.id}.${state.seq}`, { words: '' });
  const { words } = draft.value;
  const mend = () => {
    if (words.trim() === '') return;
    draft.forget();
    void visit.act('proofAgain', { test: test.id, mended: part, words: words.trim() });
  };
  return (
    <form
      className={panel['stack']}
      onSubmit={(event) => {
        event.preventDefault();
        mend();
      }}
    >
      <Textarea
        label={`What was put right: ${PARTS[part].toLowerCase()}`}
        description="What else leans on it is tried again; the rest stands."
        value={words}
        onChange={(event) => draft.change({ words: event.target.value })}
        onKeyDown={(event) => {
          if (event.defaultPrevented || event.key !== 'Enter' || event.shiftKey) return;
          event.preventDefault();
          if (mayAct()) mend();
        }}
        maxLength={300}
        rows={2}
        data-scan-guard="words"
        autoFocus
      />
      <div>
        <ActButton type="submit" look="main" hotkey="Enter" disabled={words.trim() === ''} onAct={() => undefined}>
          Put right, try again
        </ActButton>
      </div>
    </form>
  );
}
