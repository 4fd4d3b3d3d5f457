import { Select, TextInput } from '@mantine/core';
import { Link, useSearchParams } from 'react-router';
import { HOLD_REASONS, stepTitle } from '@decurio/core';
import type { QualityOfKind, QualityQuestion, QualityView } from '@decurio/contract';
import { asProblem } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { Busy, Notice } from '../../ui/notice.js';
import { ledgerApi } from '../ledger-api.js';
import { BarPanel } from './bar-panel.js';
import { hoursWords, minutesWords, percentOf } from './quality-words.js';
import classes from './quality-page.module.css';

const FIELDS = ['from', 'to', 'type', 'map'] as const;

/** How the work goes: where it is right at first, where it takes long, which codes are misread, what holds units. For leads. */
export function QualityPage() {
  const [params, setParams] = useSearchParams();
  const { who } = useSession();
  const question = Object.fromEntries(
    FIELDS.flatMap((field) => {
      const value = params.get(field);
      return value === null || value === '' ? [] : [[field, value]];
    }),
  ) as QualityQuestion;
  const isLead = who?.role !== 'technician';
  const { data, error, refetch } = ledgerApi.useQualityQuery(question, { skip: !isLead });
  const { data: choices } = ledgerApi.useLedgerChoicesQuery(null);
  const problem = asProblem(error);
  const ask = (field: (typeof FIELDS)[number], value: string) => {
    const next = { ...question, [field]: value };
    setParams(Object.fromEntries(Object.entries(next).filter(([, each]) => each !== '')), { replace: true });
  };
  return (
    <div className={classes['page']}>
      <header>
        <p className="cap">
          <Link to="/ledger">Ledger</Link>
        </p>
        <h1>How the work goes</h1>
      </header>
      {!isLead && <Notice kind="note" says="Leads look at this. What is your own you see where you are signed in." />}
      <div className={classes['asked']} role="group" aria-label="Of which visits">
        <TextInput
          type="date"
          label="Sealed since"
          value={question.from ?? ''}
          onChange={({ target }) => ask('from', target.value)}
        />
        <TextInput
          type="date"
          label="Sealed until"
          value={question.to ?? ''}
          onChange={({ target }) => ask('to', target.value)}
        />
        <Select
          label="Type"
          placeholder="every type"
          data={[...(choices?.types ?? [])]}
          value={question.type ?? null}
          onChange={(value) => ask('type', value ?? '')}
          clearable
        />
        <Select
          label="Display"
          placeholder="every display"
          data={(choices?.maps ?? []).map(({ id, title }) => ({ value: id, label: title }))}
          value={question.map ?? null}
          onChange={(value) => ask('map', value ?? '')}
          clearable
        />
      </div>
      {problem && (
        <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} />
      )}
      {isLead && !data && !problem && <Busy />}
      {data?.visits === 0 && (
        <Notice kind="note" title="No visit was sealed then" says="Ask for other days, or every type." />
      )}
      {data && data.visits > 0 && <Panels view={data} />}
    </div>
  );
}

function Panels({ view }: { readonly view: QualityView }) {
  const { visits, steps, codes, holds, types, displays, persons, uncounted } = view;
  return (
    <>
      <p>
        <b className="num">{visits}</b> {visits === 1 ? 'visit' : 'visits'}. Right at first: never sent back, nothing
        taken back, misread, stuck or held in it. Minutes are a usual visit&rsquo;s, without pauses of more than ten.
      </p>
      <div className={classes['panels']}>
        <BarPanel
          title="Right at first, by step"
          most={100}
          rows={steps.map(({ step, firstRight, visits: n }) => ({
            name: stepTitle(step),
            value: (100 * firstRight) / n,
            short: percentOf(firstRight, n),
            says: `${percentOf(firstRight, n)} (${firstRight} of ${n})`,
          }))}
        />
        <BarPanel
          title="Minutes at the unit, by step"
          rows={steps.map(({ step, minutes }) => ({
            name: stepTitle(step),
            value: minutes,
            short: minutesWords(minutes),
            says: minutesWords(minutes),
          }))}
        />
        <BarPanel
          title="Codes most often typed wrong"
          empty="No code was typed otherwise than it read."
          rows={codes.slice(0, 10).map(({ map, label, slips, disputes, visits: n }) => ({
            name: `${label} · ${map}`,
            value: (100 * slips) / Math.max(1, n),
            short: percentOf(slips, n),
            says: `${slips} in ${n} visits${disputes === 0 ? '' : `, ${disputes === 1 ? 'one dispute' : `${disputes} disputes`}`}`,
          }))}
          note="Where many slip at one code, look at what its map says, or how near its keys lie."
        />
        <BarPanel
          title="What held units, hours in all"
          empty="No unit was held."
          rows={holds.map(({ reason, holds: n, usualHours, allHours }) => ({
            name: HOLD_REASONS[reason],
            value: allHours,
            short: hoursWords(allHours),
            says: `${n} times, usually ${hoursWords(usualHours)}, ${hoursWords(allHours)} in all`,
          }))}
        />
        <Kinds title="By type" kinds={types} />
        <Kinds title="By display" kinds={displays} />
      </div>
      <section className={classes['panel']} aria-label="By person">
        <h2>By person</h2>
        {persons.length > 0 && <KindTable kinds={persons} />}
        <p className="soft">
          {uncounted === 0
            ? ''
            : `${uncounted === 1 ? 'One person has' : `${uncounted} people have`} not agreed to be counted one by one, and ${uncounted === 1 ? 'does' : 'do'} not stand here. `}
          Everybody says so for themselves, where they are signed in, and can take it back. Visits that one of them did
          from end to end.
        </p>
      </section>
    </>
  );
}

function Kinds({ title, kinds }: { readonly title: string; readonly kinds: readonly QualityOfKind[] }) {
  return (
    <section className={classes['panel']} aria-label={title}>
      <h2>{title}</h2>
      <KindTable kinds={kinds} />
    </section>
  );
}

function KindTable({ kinds }: { readonly kinds: readonly QualityOfKind[] }) {
  return (
    <table className={classes['table']}>
      <thead>
        <tr className="cap">
          <th scope="col">Name</th>
          <th scope="col">Visits</th>
          <th scope="col">All steps right at first</th>
          <th scope="col">Minutes</th>
        </tr>
      </thead>
      <tbody>
        {kinds.map(({ name, visits, firstRight, minutes }) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td className="num">{visits}</td>
            <td className="num">{percentOf(firstRight, visits)}</td>
            <td className="num">{minutesWords(minutes)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
