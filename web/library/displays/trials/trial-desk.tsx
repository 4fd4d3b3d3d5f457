import { TextInput } from '@mantine/core';
import { useMemo } from 'react';
import {
  codeTitle,
  judgeTrial,
  QUANTITIES,
  trialOrder,
  trialSays,
  withTrial,
  type Code,
  type TrialJudgement,
} from '@decurio/core';
import type { LibraryEntry, TrialView } from '@decurio/contract';
import { useDraft } from '../../../drafts/use-draft.js';
import { api, asProblem } from '../../../state/api.js';
import { ActButton } from '../../../ui/act-button.js';
import { Notice } from '../../../ui/notice.js';
import { whenFull } from '../../../ui/when.js';
import { DueRun } from './due-run.js';
import { TrialPlot } from './trial-plot.js';
import classes from './trials.module.css';

/** One trial: the run that is due, what was measured so far, and, once all are made, what they show. */
export function TrialDesk({
  trial,
  entry,
  mayEdit,
}: {
  readonly trial: TrialView;
  readonly entry: LibraryEntry<'displayMap'>;
  readonly mayEdit: boolean;
}) {
  const { plan, more, runs, ended, unit } = trial;
  const code = entry.document.codes.find(({ label }) => label === plan.label);
  const order = useMemo(() => trialOrder(plan, more), [plan, more]);
  const isThrough = runs.length >= order.length;
  const judged = useMemo(
    () => (isThrough ? judgeTrial(plan, runs, 1 + more.length) : null),
    [isThrough, plan, runs, more],
  );
  const of = QUANTITIES[plan.quantity];
  if (!code)
    return <Notice kind="note" says={`The map of today has no ${plan.label} any more. The trial stands as it was.`} />;
  return (
    <section className={classes['desk']} aria-label={`Trial of ${plan.label}`}>
      <p className={classes['of']}>
        <b className="num">{plan.label}</b> {codeTitle(code)}, on {unit}
      </p>
      <div className={classes['work']}>
        <div className={classes['now']}>
          {!isThrough && !ended && <DueRun trial={trial} code={code} raw={order[runs.length] ?? 0} />}
          {judged?.ok && (
            <Shown
              judged={judged.value}
              trial={trial}
              code={code}
              entry={entry}
              mayEdit={mayEdit}
              drawn={order.length}
            />
          )}
          {judged && !judged.ok && <Notice kind="stop" says={judged.problem.message} />}
          {ended && (
            <p>
              Ended by {ended.by} on {whenFull(ended.at)}: {ended.words}
              {ended.version === null ? ' The map stays as it was.' : ` Written as version ${ended.version}, a draft.`}
            </p>
          )}
          {!isThrough && ended && <p className="soft">It was ended before all runs were made.</p>}
        </div>
        <figure className={classes['plot']}>
          <figcaption>
            {of.title}, {of.unit}
          </figcaption>
          <TrialPlot plan={plan} runs={runs} code={code} judged={judged?.ok ? judged.value : null} />
          <p className="soft">
            {runs.length} of {order.length} runs. {!isThrough && 'What they show is said once all are made.'}
          </p>
        </figure>
      </div>
    </section>
  );
}

const KINDS = { differs: 'done', alike: 'done', open: 'care' } as const;
const TITLES = {
  differs: 'It does something',
  alike: 'It does nothing that was measured',
  open: 'Not settled yet',
} as const;

/** What the runs show, and what may follow: more of them, a new draft of the map, or the end. */
function Shown({
  judged,
  trial,
  code,
  entry,
  mayEdit,
  drawn,
}: {
  readonly judged: TrialJudgement;
  readonly trial: TrialView;
  readonly code: Code;
  readonly entry: LibraryEntry<'displayMap'>;
  readonly mayEdit: boolean;
  readonly drawn: number;
}) {
  const { id, plan, unit, openedAt, ended } = trial;
  const [draw, drawing] = api.useDrawMoreRunsMutation();
  const [save, saving] = api.useAddDocumentMutation();
  const [end, ending] = api.useEndTrialMutation();
  const draft = useDraft(`endTrial.${id}`, { words: '' });
  const { words } = draft.value;
  const says = trialSays(plan, judged, code);
  const each = drawn / plan.values.length;
  const write = async () => {
    const document = withTrial(entry.document, plan, judged, `on ${unit}, ${whenFull(openedAt).slice(0, -6)}`);
    const answer = await save({ kind: 'displayMap', document });
    if (answer.data) await end({ id, body: { words: says[0]?.slice(0, 300) ?? '', version: answer.data.version } });
  };
  const problem = asProblem(saving.error) ?? asProblem(ending.error) ?? asProblem(drawing.error);
  return (
    <>
      <Notice kind={KINDS[judged.verdict]} title={TITLES[judged.verdict]} says={says.join(' ')} />
      <p className="soft">
        {judged.isExact ? 'Over all arrangements' : 'Over 50,000 arrangements'}, chance alone would set them as far
        apart in {judged.p < 0.001 ? 'less than 1 of 1000' : `${(judged.p * 100).toFixed(1)} %`}. All looks at it
        together mistake a code that does nothing in one trial of twenty at most.
      </p>
      {problem && (
        <Notice kind="stop" says={problem.fields ? Object.values(problem.fields).join(' ') : problem.message} />
      )}
      {!ended && (
        <>
          <div className={classes['acts']}>
            {judged.verdict === 'open' ? (
              <ActButton
                look="main"
                busy={drawing.isLoading}
                onAct={() => void draw({ id, body: { drawn: each, each: judged.moreEach } })}
              >{`Draw ${judged.moreEach} more of each`}</ActButton>
            ) : (
              mayEdit && (
                <ActButton look="main" busy={saving.isLoading || ending.isLoading} onAct={() => void write()}>
                  Write it into the map, as a draft
                </ActButton>
              )
            )}
          </div>
          {mayEdit ? (
            <form
              className={classes['end']}
              onSubmit={(event) => {
                event.preventDefault();
                if (words.trim().length >= 3) void end({ id, body: { words: words.trim(), version: null } });
              }}
            >
              <TextInput
                label="Or end it, and leave the map as it is"
                placeholder="Why, in a few words"
                value={words}
                onChange={(event) => draft.change({ words: event.target.value })}
                maxLength={300}
                data-scan-guard="words"
              />
              <ActButton type="submit" disabled={words.trim().length < 3} onAct={() => undefined}>
                End it so
              </ActButton>
            </form>
          ) : (
            <p className="soft">A lead writes it into the map, and a second person confirms that.</p>
          )}
        </>
      )}
    </>
  );
}
