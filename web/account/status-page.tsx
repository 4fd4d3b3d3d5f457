import { IconAlertTriangle, IconCheck, IconHandStop } from '@tabler/icons-react';
import type { StatusFinding, StatusView } from '@decurio/contract';
import { asProblem } from '../state/api.js';
import { Busy, Notice } from '../ui/notice.js';
import { whenClock } from '../ui/when.js';
import { statusApi } from './status-api.js';
import classes from './status-page.module.css';

const REFRESH_MS = 15_000;

/** How the house runs, for its owner: what is amiss first, with what to do, then what goes on. */
export function StatusPage() {
  const { data, error, refetch } = statusApi.useStatusQuery(null, {
    refetchOnMountOrArgChange: true,
    pollingInterval: REFRESH_MS,
    skipPollingIfUnfocused: true,
  });
  const problem = asProblem(error);
  if (!data)
    return problem ? (
      <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} page />
    ) : (
      <Busy />
    );
  const wrong = data.findings.filter(({ grade }) => grade !== 'good').toSorted(byGrade);
  const right = data.findings.filter(({ grade }) => grade === 'good');
  return (
    <div className={classes['page']}>
      <p className="cap">The house</p>
      <h1>{titleOf(wrong)}</h1>
      {problem && <Notice kind="care" says={`${problem.message} What you see may be old.`} />}
      {wrong.length > 0 && <Findings title="To be looked at" findings={wrong} />}
      <Numbers status={data} />
      <Findings title="As it should be" findings={right} />
      <p className="soft">
        As the process that answered finds it; another may answer next. For what a whole night brings, run the commands
        named in the operating manual: verify-ledger, backup, doctor.
      </p>
    </div>
  );
}

const byGrade = (a: StatusFinding, b: StatusFinding): number => RANK[a.grade] - RANK[b.grade];
const RANK = { amiss: 0, look: 1, good: 2 } as const;

function titleOf(wrong: readonly StatusFinding[]): string {
  const amiss = wrong.filter(({ grade }) => grade === 'amiss').length;
  if (amiss > 0) return amiss === 1 ? 'One thing is amiss' : `${amiss} things are amiss`;
  return wrong.length > 0 ? 'It runs, with something to look at' : 'It runs as it should';
}

function Numbers({
  status: { server, database, now, lastEntryAt, lastSeal, lastCheckpoint },
}: {
  readonly status: StatusView;
}) {
  const when = (at: string | null): string => (at === null ? 'none yet' : whenClock(at));
  const figures: readonly (readonly [what: string, figure: string, beside: string])[] = [
    [
      'Signed in',
      `${now.signedIn}`,
      `${server.streams} ${server.streams === 1 ? 'screen listens' : 'screens listen'} here`,
    ],
    ['Units begun', `${now.openVisits}`, `${now.held} held`],
    ['Last change', when(lastEntryAt), ''],
    ['Last seal', when(lastSeal?.at ?? null), lastSeal?.serial ?? ''],
    [
      'Last checkpoint',
      when(lastCheckpoint?.at ?? null),
      lastCheckpoint === null ? '' : `over ${lastCheckpoint.size} ${lastCheckpoint.size === 1 ? 'mark' : 'marks'}`,
    ],
    ['Database', `${database.sizeMb} MB`, clusterWords(database)],
    ['Server since', whenClock(server.startedAt), `${server.memoryMb} MB, Node ${server.node.replace('v', '')}`],
  ];
  return (
    <dl className={classes['numbers']} aria-label="What goes on">
      {figures.map(([what, figure, beside]) => (
        <div key={what}>
          <dt className="cap">{what}</dt>
          <dd>
            <b className="num">{figure}</b>
            {beside !== '' && <span className="soft">{beside}</span>}
          </dd>
        </div>
      ))}
    </dl>
  );
}

function clusterWords({ cluster, version }: StatusView['database']): string {
  const [short = version] = version.split('-');
  if (cluster === null) return `MariaDB ${short}`;
  return cluster.isPrimary ? `${cluster.nodes} nodes, MariaDB ${short}` : 'a node that lost the others';
}

const ICONS = { good: IconCheck, look: IconAlertTriangle, amiss: IconHandStop } as const;
const WORDS = { good: 'as it should be', look: 'to be looked at', amiss: 'amiss' } as const;

function Findings({ title, findings }: { readonly title: string; readonly findings: readonly StatusFinding[] }) {
  return (
    <section aria-label={title}>
      <h2>{title}</h2>
      <ul className={classes['findings']}>
        {findings.map(({ of, grade, says }) => {
          const Icon = ICONS[grade];
          return (
            <li key={`${of} ${says}`} data-grade={grade}>
              <Icon size={20} aria-label={WORDS[grade]} />
              <strong>{of}</strong>
              <span>{says}</span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
