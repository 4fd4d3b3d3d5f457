import { useMemo, useState } from 'react';
import { codeTitle, judgeTrial, QUANTITIES, trialOrder, valueWords, type Code, type DisplayMap } from '@decurio/core';
import type { LibraryEntry, TrialView } from '@decurio/contract';
import { api, asProblem } from '../../../state/api.js';
import { ActButton } from '../../../ui/act-button.js';
import { Busy, Notice } from '../../../ui/notice.js';
import { whenDay } from '../../../ui/when.js';
import { NewTrialForm } from './new-trial.js';
import { TrialDesk } from './trial-desk.js';
import classes from './trials.module.css';

/** Does this code do anything? Values of one code against one measured figure, in an order that was drawn. */
export function TrialsView({
  entry,
  mayEdit,
}: {
  readonly entry: LibraryEntry<'displayMap'>;
  readonly mayEdit: boolean;
}) {
  const { data, error, refetch } = api.useTrialsQuery(entry.id);
  const problem = asProblem(error);
  if (!data)
    return problem ? (
      <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} />
    ) : (
      <Busy />
    );
  return <Trials trials={data} entry={entry} mayEdit={mayEdit} />;
}

function Trials({
  trials,
  entry,
  mayEdit,
}: {
  readonly trials: readonly TrialView[];
  readonly entry: LibraryEntry<'displayMap'>;
  readonly mayEdit: boolean;
}) {
  // The one under way, where there is one; it stays in sight when it ends.
  const [chosen, setChosen] = useState(() => trials.find(({ ended }) => ended === null)?.id ?? null);
  const shown = trials.find(({ id }) => id === chosen);
  return (
    <div className={classes['trials']}>
      <nav className={classes['list']} aria-label="Trials of this display">
        <ActButton look={shown ? 'quiet' : 'main'} onAct={() => setChosen(null)}>
          A new trial
        </ActButton>
        {trials.length === 0 && (
          <p className="soft">
            Papers claim, hands feel nothing. Two values of a code, some runs of each in an order that was drawn, and it
            is told whether the code does anything.
          </p>
        )}
        <ul>
          {trials.map((trial) => (
            <li key={trial.id}>
              <button type="button" aria-current={trial.id === shown?.id} onClick={() => setChosen(trial.id)}>
                <TrialCard trial={trial} map={entry.document} />
              </button>
            </li>
          ))}
        </ul>
      </nav>
      {shown ? (
        <TrialDesk key={shown.id} trial={shown} entry={entry} mayEdit={mayEdit} />
      ) : (
        <NewTrialForm entry={entry} onBegun={setChosen} />
      )}
    </div>
  );
}

const STANDS = { differs: 'differs', alike: 'no difference', open: 'not settled' } as const;

function TrialCard({ trial, map }: { readonly trial: TrialView; readonly map: DisplayMap }) {
  const { plan, runs, more, ended, unit, openedAt } = trial;
  const code = map.codes.find(({ label }) => label === plan.label);
  const due = useMemo(() => trialOrder(plan, more).length, [plan, more]);
  const judged = useMemo(
    () => (runs.length < due ? null : judgeTrial(plan, runs, 1 + more.length)),
    [plan, runs, more, due],
  );
  return (
    <>
      <strong>
        <span className="num">{plan.label}</span> {code ? codeTitle(code) : ''}
      </strong>
      <span>{plan.values.map((raw) => shortWords(code, raw)).join(' against ')}</span>
      <small>
        {QUANTITIES[plan.quantity].title}, {unit}, {whenDay(openedAt)}
      </small>
      <em data-stands={judged?.ok ? judged.value.verdict : 'running'}>
        {judged?.ok ? STANDS[judged.value.verdict] : `${runs.length} of ${due} runs`}
        {ended ? ', ended' : ''}
      </em>
    </>
  );
}

const shortWords = (code: Code | undefined, raw: number): string => (code ? valueWords(code, raw) : String(raw));
