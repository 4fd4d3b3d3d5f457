import { Link, useParams, useSearchParams } from 'react-router';
import type { UnitLife } from '@decurio/contract';
import { asProblem } from '../../state/api.js';
import { Busy, Notice } from '../../ui/notice.js';
import { whenFull } from '../../ui/when.js';
import { ledgerApi } from '../ledger-api.js';
import { Beside } from './beside.js';
import { statesOf } from './states-of.js';
import classes from './life-page.module.css';

/** A unit's whole life: every visit with what was of note, and any of its states beside any other. */
export function LifePage() {
  const { serial = '' } = useParams();
  const { data, error, refetch } = ledgerApi.useUnitLifeQuery(serial);
  const problem = asProblem(error);
  if (problem && !data)
    return (
      <Notice
        kind="stop"
        title="This unit's life cannot be shown"
        says={problem.message}
        act={{ label: 'Try again', onAct: () => void refetch() }}
        page
      />
    );
  if (!data) return <Busy />;
  return <Life life={data} />;
}

function Life({ life }: { readonly life: UnitLife }) {
  const [params, setParams] = useSearchParams();
  const withSerial = params.get('with') ?? '';
  const states = statesOf(life);
  // The newest that can be told apart from what was before, where nothing else is asked for.
  const one = params.get('one') ?? states.at(-2)?.id ?? states[0]?.id ?? '';
  const other = params.get('other') ?? states.at(-1)?.id ?? '';
  const ask = (next: Readonly<Record<string, string>>) =>
    setParams({ one, other, ...(withSerial === '' ? {} : { with: withSerial }), ...next }, { replace: true });
  return (
    <div className={classes['page']}>
      <header>
        <p className="cap">{life.typeName}</p>
        <h1 className={classes['serial']}>{life.serial}</h1>
        <p className="soft">
          {life.visits.length === 0
            ? 'Never here'
            : life.visits.length === 1
              ? 'Here once'
              : `Here ${life.visits.length} times`}
          {life.hasMore ? ', the newest of more' : ''}. {whereNow(life)}
        </p>
      </header>
      {life.elsewhere.length > 0 && (
        <ul className={classes['elsewhere']} aria-label="Known elsewhere">
          {life.elsewhere.map(({ visitId, origin, customer, sealedAt }) => (
            <li key={visitId}>
              A serial like this was sealed {whenFull(sealedAt)} for {customer} in another house
              {origin === '' ? '' : `, ${origin}`}. <Link to={`/ledger/elsewhere/${visitId}`}>See its record</Link>
            </li>
          ))}
        </ul>
      )}
      <div className={classes['columns']}>
        <ol className={classes['visits']} aria-label="Visits, newest first">
          {life.visits.map((visit) => (
            <li key={visit.visitId}>
              <h2>
                <Link to={`/ledger/${visit.visitId}`}>Order {visit.orderNumber}</Link> <small>{visit.customer}</small>
              </h2>
              <p className="soft">
                {visit.className}
                {visit.display === '' ? '' : `, ${visit.display}`}
              </p>
              {visit.isDamaged ? (
                <Notice kind="stop" says="Its entries are not whole. Open it, and verify its seal." />
              ) : (
                <ul>
                  {visit.events.map(({ at, by, kind, says }, i) => (
                    <li key={i} data-kind={kind}>
                      <span className="num">{whenFull(at)}</span>
                      <span>
                        {says} <small className="soft">{by}</small>
                      </span>
                    </li>
                  ))}
                </ul>
              )}
            </li>
          ))}
        </ol>
        <Beside states={states} one={one} other={other} withSerial={withSerial} onAsk={ask} />
      </div>
    </div>
  );
}

function whereNow({ visits: [newest] }: UnitLife): string {
  if (!newest) return '';
  if (newest.handedTo !== null) return `Out with ${newest.handedTo}.`;
  return newest.sealedAt === null ? 'Not signed off.' : 'In the house.';
}
