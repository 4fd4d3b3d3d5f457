import { lazy, Suspense, useState } from 'react';
import type { LearntFamily } from '@decurio/contract';
import { FEWEST_RUNS } from '@decurio/core';
import { api, asProblem } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { Busy, Notice } from '../../ui/notice.js';
import { whenFull } from '../../ui/when.js';
import { Facts } from '../facts.js';
import { Shelves } from '../shelves.js';
import shelf from '../library-page.module.css';
import { OddRuns, Overshoots } from './odd-units.js';
import { NewBatchDialog } from './new-batch-dialog.js';
import classes from './learnt.module.css';

const ControlChart = lazy(() => import('./control-chart.js').then((m) => ({ default: m.ControlChart })));

/** What units that were run tell of the next ones, family by family. */
export function LearntPage() {
  const { data, error, refetch } = api.useFamiliesQuery(null, { refetchOnMountOrArgChange: true });
  const problem = asProblem(error);
  return (
    <div className={shelf['page']}>
      <Shelves current="learnt" />
      <div className={classes['learnt']}>
        <header>
          <h1>Learnt from runs</h1>
          <p className="soft">
            Units of one type, display revision and tyre read alike up to a spread. Once {FEWEST_RUNS} were run, the
            next ones are keyed by it at once.
          </p>
        </header>
        {problem && (
          <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} />
        )}
        {!data && !problem && <Busy />}
        {data?.length === 0 && (
          <Notice
            kind="note"
            title="Nothing was run yet"
            says="Calibrate a unit at the bench against a reference speed; what it reads stands here from then on."
          />
        )}
        {data?.map((family) => (
          <Family key={`${family.typeId} ${family.mapId} ${family.revision} ${family.tyre}`} family={family} />
        ))}
      </div>
    </div>
  );
}

function Family({ family }: { readonly family: LearntFamily }) {
  const { who } = useSession();
  const [asks, setAsks] = useState(false);
  const { advice, runs, since, wheelRaw } = family;
  const told = advice.family;
  const off = (k: number): string => `${k < 1 ? '−' : '+'}${Math.abs((k - 1) * 100).toFixed(1)} %`;
  return (
    <section
      className={classes['family']}
      aria-label={`${family.typeTitle}, ${family.mapName} revision ${family.revision}, tyre ${family.tyre}`}
    >
      <h2>
        {family.typeTitle}{' '}
        <small>
          {family.mapName}, revision {family.revision} · tyre {family.tyre}
        </small>
      </h2>
      <p className={classes['advice']} data-next={advice.next}>
        {adviceWords(family)}
      </p>
      {runs.length > 0 && (
        <Suspense fallback={<Busy />}>
          <ControlChart family={family} />
        </Suspense>
      )}
      <OddRuns family={family} />
      <Overshoots family={family} />
      {told && (
        <Facts
          rows={[
            [
              'Runs',
              `${told.count}, on average ${off(told.mean)} with wheel ${wheelRaw ?? 'as it is'}; spread ${(told.spread * 100).toFixed(2)} %`,
            ],
            ['The next one', `reads ${off(told.next.low)} to ${off(told.next.high)}, 95 of 100`],
            ['95 of 100 units', `read ${off(told.tolerance.low)} to ${off(told.tolerance.high)}, at 95 % confidence`],
            ['Cap held for', `${off(told.capLow)}: 99 of 100 read more, at 95 % confidence`],
            ...(since ? [['Tyre batch', `since ${whenFull(since.at)}, ${since.by}: ${since.words}`] as const] : []),
          ]}
        />
      )}
      {!told && since && (
        <p className="soft">
          New tyre batch since {whenFull(since.at)}, {since.by}: {since.words}
        </p>
      )}
      {who?.role !== 'technician' && <ActButton onAct={() => setAsks(true)}>A new tyre batch begins</ActButton>}
      {asks && <NewBatchDialog typeId={family.typeId} tyre={family.tyre} onClose={() => setAsks(false)} />}
    </section>
  );
}

function adviceWords({ advice: { why, oneIn, outsider, family, odd, inFamily }, runs }: LearntFamily): string {
  switch (why) {
    case 'tooFew':
      return odd.length > 0
        ? `${inFamily} read alike, and ${FEWEST_RUNS} must: every unit is run.`
        : `${runs.length} of ${FEWEST_RUNS} runs: every unit is run.`;
    case 'surprise':
      return `${outsider} read otherwise than those before it: the next ones are run in full.`;
    case 'capNotSure':
    case 'showsUnder':
      return odd.length > 0
        ? 'With what reads otherwise, the runs spread too far to key others by them: every unit is run.'
        : 'The runs spread too far to key others by them: every unit is run.';
    case 'learnt':
      return `Learnt from ${family?.count ?? 0} units: the next ones are keyed by it at once, and one in ${oneIn} is run. Their certificates say that they were not themselves measured.`;
  }
}
