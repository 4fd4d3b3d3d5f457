import { Textarea } from '@mantine/core';
import { provingTermsOf, type ProvingTest, type VisitState } from '@decurio/core';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { useDraft } from '../../drafts/use-draft.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import type { Visit } from '../use-visit.js';
import panel from '../panel.module.css';

/** It cannot be tried now: something else first, the unit stands aside, or a lead leaves it out in writing. */
export function CannotHere({
  test,
  state,
  visit,
  onLater,
  onClose,
}: {
  readonly test: ProvingTest;
  readonly state: VisitState;
  readonly visit: Visit;
  readonly onLater: () => void;
  readonly onClose: () => void;
}) {
  const { who } = useSession();
  const draft = useDraft(`leaveOut.${state.visitId}.${test.id}`, { words: '' });
  const { words } = draft.value;
  const mayLeave =
    !test.isNeverLeftOut &&
    provingTermsOf(state.opened)?.unproved === 'inWriting' &&
    who !== null &&
    who.role !== 'technician';
  const aside = () => {
    const dueAt = test.waitsMin === null ? null : new Date(Date.now() + test.waitsMin * 60_000).toISOString();
    void visit.act('waitBegun', { test: test.id, words: `${test.title}: stands aside`, dueAt });
  };
  const leave = () => {
    if (words.trim() === '') return;
    draft.forget();
    void visit.act('proofLeft', { test: test.id, words: words.trim() });
  };
  useHotkeys({ L: onLater, W: aside, Escape: onClose });
  return (
    <div className={panel['stack']}>
      <div className={panel['acts']}>
        <ActButton look="main" hotkey="L" onAct={onLater}>
          Something else first
        </ActButton>
        <ActButton hotkey="W" onAct={aside}>
          {test.waitsMin === null ? 'It stands aside' : `Left alone for ${test.waitsMin} min`}
        </ActButton>
        <ActButton onAct={onClose}>It can</ActButton>
      </div>
      {mayLeave ? (
        <form
          className={panel['stack']}
          onSubmit={(event) => {
            event.preventDefault();
            leave();
          }}
        >
          <Textarea
            label="A lead leaves it out, in writing"
            description="Every paper repeats it."
            value={words}
            onChange={(event) => draft.change({ words: event.target.value })}
            maxLength={300}
            rows={2}
            data-scan-guard="words"
          />
          <div>
            <ActButton type="submit" look="care" disabled={words.trim() === ''} onAct={() => undefined}>
              Leave it out, in these words
            </ActButton>
          </div>
        </form>
      ) : (
        <p className="soft">
          {test.isNeverLeftOut
            ? 'No unit leaves without it.'
            : provingTermsOf(state.opened)?.unproved === 'never'
              ? 'House rules let no unit leave without it.'
              : 'A lead may leave it out, in writing.'}
        </p>
      )}
    </div>
  );
}
