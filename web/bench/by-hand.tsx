import { Textarea } from '@mantine/core';
import { isNeverLeftOut, proofWords, stepTitle } from '@decurio/core';
import { useSession } from '../state/session.js';
import { ActButton } from '../ui/act-button.js';
import { Begun } from '../drafts/begun.js';
import { useDraft } from '../drafts/use-draft.js';
import { mayAct } from '../ui/keys/bounce.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { Notice } from '../ui/notice.js';
import type { Visit } from './use-visit.js';
import classes from './panel.module.css';

const ASKS = {
  calibrate: {
    title: 'Is the shown speed the true speed?',
    lead: 'A nominal wheel size is rarely right, and the cap counts in the shown speed. If you held it against a reference, say which, at what speeds, and what came out.',
    left: 'Not measured: the record says that true speed was not measured.',
    next: 'prove',
  },
  prove: {
    title: 'Does it do what was promised?',
    lead: 'Throttle from standstill, assist start and end, each brake lever, every mode at the highest level on a full pack. Say what you tried and what came out.',
    left: 'Not tried: the record says that nothing was proved on the road.',
    next: 'sign off',
  },
} as const;

/** Calibrate and Prove, done with one's own means: what was done in words, or openly left out. */
export function ByHand({ step, visit }: { readonly step: keyof typeof ASKS; readonly visit: Visit }) {
  const { who } = useSession();
  const draft = useDraft(`${step}.${visit.state?.visitId ?? ''}.${visit.state?.round ?? 0}`, { words: '' });
  const { words } = draft.value;
  const { title, lead, left, next } = ASKS[step];
  const done = words.trim() !== '';
  const proves = step === 'prove' ? (visit.state?.opened.setup.proves ?? []) : [];
  const isAsked = proves.length > 0;
  const mayLeaveOut = isAsked && who !== null && who.role !== 'technician' && !proves.some(isNeverLeftOut);
  const write = (isDone: boolean) => {
    draft.forget();
    void visit.act('stepByHand', { step, done: isDone, words: words.trim() });
  };
  const go = () => {
    if (!isAsked || done) write(done);
  };
  useHotkeys({ Space: go });
  return (
    <form
      className={classes['panel']}
      onSubmit={(event) => {
        event.preventDefault();
        go();
      }}
    >
      <p className="cap">{stepTitle(step)}</p>
      <h2 className={classes['title']}>{title}</h2>
      {!isAsked && <p className={classes['lead']}>{lead}</p>}
      {step === 'prove' && (
        <Notice
          kind="care"
          says="Helmet on in the yard. Never ride a test on a public road with an uncapped unit. Motor and brake may be hot."
        />
      )}
      {isAsked && (
        <ol className={classes['proofs']} aria-label="To be shown on the vehicle">
          {proves.map((proof) => {
            const { first, tries } = proofWords(proof);
            return (
              <li key={proof.kind}>
                {first !== null && <strong>{first} </strong>}
                {tries}
                {isNeverLeftOut(proof) && <span className={classes['never']}> No unit leaves without it.</span>}
              </li>
            );
          })}
        </ol>
      )}
      <Begun draft={draft} />
      <Textarea
        label={isAsked ? 'What came out' : 'Done by hand'}
        description={
          isAsked
            ? 'Each of them, in your words. A lead may leave out what wants a yard, in writing.'
            : 'Left empty, the step is left out, and every paper says so.'
        }
        value={words}
        onChange={(e) => draft.change({ words: e.target.value })}
        onKeyDown={(event) => {
          if (event.defaultPrevented) return;
          if (event.key === 'PageDown' || (event.key === 'Enter' && !event.shiftKey)) {
            event.preventDefault();
            if (mayAct()) go();
          }
        }}
        maxLength={500}
        rows={isAsked ? 3 : 4}
        data-scan-guard="words"
        autoFocus
      />
      {!done && !isAsked && <p className="soft">{left}</p>}
      <div className={classes['acts']}>
        <ActButton type="submit" look="main" hotkey="Enter" disabled={isAsked && !done} onAct={() => undefined}>
          {isAsked ? `Shown so, to ${next}` : done ? `Done by hand, to ${next}` : `Left out, to ${next}`}
        </ActButton>
        {mayLeaveOut && (
          <ActButton look="care" disabled={!done} onAct={() => write(false)}>
            Leave it out, in these words
          </ActButton>
        )}
      </div>
    </form>
  );
}
