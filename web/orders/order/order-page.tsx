import { Tabs } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';
import { Link, useParams } from 'react-router';
import { isOpen, kmhWords, speedWords } from '@decurio/core';
import type { OrderActed, OrderPageView } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { DueAt } from '../../ui/due-at.js';
import { ReadyBy } from '../../ui/ready-by.js';
import { Busy, Notice } from '../../ui/notice.js';
import { FindingList } from '../../ui/finding-list.js';
import { PrivateLandStrip } from '../../ui/private-land.js';
import { ChangeList } from './change-list.js';
import { Decide } from './decide.js';
import { PinCard } from './pin-card.js';
import { SetupTable } from './setup-table.js';
import { useOrderSetups, type GroupSetup } from './use-order-setups.js';
import { WhatIf } from './what-if.js';
import classes from './order-page.module.css';

const AmendOrder = lazy(() => import('./amend-order.js').then((m) => ({ default: m.AmendOrder })));
const Arrivals = lazy(() => import('./arrivals.js').then((m) => ({ default: m.Arrivals })));
const Recompile = lazy(() => import('./recompile.js').then((m) => ({ default: m.Recompile })));
const UnitsOfOrder = lazy(() => import('./units-of-order.js').then((m) => ({ default: m.UnitsOfOrder })));

type Open = 'none' | 'amend' | 'bringBack' | 'arrive' | 'units' | 'recompile';

/** One order: what was promised, the setup each type gets, what stands against it, and how it was changed. */
export function OrderPage() {
  const { orderId = '' } = useParams();
  const { data: view, error, refetch } = api.useOrderQuery(orderId);
  const setups = useOrderSetups(view);
  const { who } = useSession();
  const [open, setOpen] = useState<Open>('none');
  const [acted, setActed] = useState<OrderActed | null>(null);
  const problem = asProblem(error);
  if (problem && !view)
    return <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} page />;
  if (!view) return <Busy />;
  const isLead = who !== null && who.role !== 'technician';
  const hasStartPin =
    setups?.groups.some(({ map }) => map.codes.some((code) => code.function === 'startupPin')) === true;
  const done = (result: OrderActed) => {
    setActed(result);
    setOpen('none');
  };
  return (
    <div className={classes['page']}>
      <Head view={view} />
      {view.terms.privateLand && (
        <PrivateLandStrip
          label={view.terms.privateLand.label}
          endsOn={view.terms.privateLand.endsOn}
          says={`${view.terms.privateLand.isUncapped ? 'Without any cap. ' : ''}By written authority of ${view.terms.privateLand.authorityBy}; acknowledged: ${view.terms.privateLand.acknowledgement}.`}
        />
      )}
      <div className={classes['acts']}>
        <ActButton look={view.expected.length > 0 ? 'main' : 'quiet'} onAct={() => setOpen('arrive')}>
          Scan arrivals
        </ActButton>
        {isLead && <ActButton onAct={() => setOpen('amend')}>Amend</ActButton>}
        {isLead && view.terms.privateLand && (
          <ActButton onAct={() => setOpen('bringBack')}>Bring its units back</ActButton>
        )}
        <ActButton onAct={() => setOpen('units')}>Units</ActButton>
        {isLead && <ActButton onAct={() => setOpen('recompile')}>Work out anew</ActButton>}
        {isLead && view.order.sealed > 0 && (
          <a className={classes['toLine']} href={`/api/orders/${orderId}/archive.zip`} download>
            Archive (ZIP)
          </a>
        )}
        <Link className={classes['toLine']} to={`/line/${orderId}`}>
          See it on Line
        </Link>
      </div>
      {acted && <Acted acted={acted} />}
      <Suspense fallback={<Busy />}>
        {open === 'arrive' && <Arrivals view={view} />}
        {(open === 'amend' || open === 'bringBack') && (
          <AmendOrder
            key={open}
            view={view}
            bringsBack={open === 'bringBack'}
            onDone={done}
            onLeave={() => setOpen('none')}
          />
        )}
        {open === 'units' && <UnitsOfOrder view={view} isLead={isLead} onDone={setActed} />}
        {open === 'recompile' && <Recompile orderId={orderId} onDone={done} onLeave={() => setOpen('none')} />}
      </Suspense>
      {setups ? (
        <Setups groups={setups.groups} view={view} setups={setups} isLead={isLead} onDone={setActed} />
      ) : (
        <Busy />
      )}
      <div className={classes['foot']}>
        <ChangeList changes={view.changes} />
        {isLead && <PinCard view={view} opens="menu" />}
        {isLead && hasStartPin && <PinCard view={view} opens="start" />}
      </div>
    </div>
  );
}

function Head({ view: { order, terms, notes, expected } }: { readonly view: OrderPageView }) {
  const coming = expected.reduce((sum, each) => sum + each.count, 0);
  const limits = [
    terms.siteLimit ? `the site allows ${speedWords(terms.siteLimit)}` : null,
    terms.orderLimit ? `the order asks at most ${speedWords(terms.orderLimit)}` : null,
    terms.throttle === 'none' ? 'no throttle wanted' : null,
  ].filter((words) => words !== null);
  return (
    <header className={classes['head']}>
      <div>
        <p className="cap">
          <Link to="/orders">Orders</Link> · {order.number}
        </p>
        <h1>{order.customer}</h1>
        <p>
          {order.place}: {order.className}
          {limits.length > 0 && `; ${limits.join('; ')}`}.{' '}
          <span className="soft">Legal values {order.classChecked}.</span>
        </p>
        {notes !== '' && <p className={classes['notes']}>{notes}</p>}
      </div>
      <dl className={classes['figures']}>
        <div>
          <dt className="cap">Ready by</dt>
          <dd>
            <DueAt order={order} />
            <ReadyBy orderId={order.id} calendar />
          </dd>
        </div>
        <div>
          <dt className="cap">Units</dt>
          <dd className="num">{order.units}</dd>
        </div>
        {coming > 0 && (
          <div>
            <dt className="cap">To come</dt>
            <dd className="num">{coming}</dd>
          </div>
        )}
        <div>
          <dt className="cap">Sealed</dt>
          <dd className="num">{order.sealed}</dd>
        </div>
        <div data-alarm={order.held > 0}>
          <dt className="cap">Held</dt>
          <dd className="num">{order.held}</dd>
        </div>
      </dl>
    </header>
  );
}

interface SetupsProps {
  readonly groups: readonly GroupSetup[];
  readonly view: OrderPageView;
  readonly setups: NonNullable<ReturnType<typeof useOrderSetups>>;
  readonly isLead: boolean;
  readonly onDone: (acted: OrderActed) => void;
}

function Setups({ groups, view, setups, isLead, onDone }: SetupsProps) {
  const [first] = groups;
  const [chosen, setChosen] = useState<string | null>(null);
  if (!first)
    return (
      <Notice
        kind="note"
        title="No unit yet"
        says="Scan what arrives, or say in an amendment which types are to come. Their setup then stands here before any unit is touched."
      />
    );
  const shown = groups.find((group) => group.key === chosen)?.key ?? first.key;
  return (
    <Tabs value={shown} onChange={setChosen} variant="outline" className={classes['tabs'] ?? ''} keepMounted={false}>
      <Tabs.List>
        {groups.map((group) => (
          <Tabs.Tab key={group.key} value={group.key}>
            <span className={classes['tab']}>
              {group.type.name}{' '}
              <small>
                {group.map.name} {group.map.revision}, {group.units + group.expected}
              </small>
              <Pressing group={group} />
            </span>
          </Tabs.Tab>
        ))}
      </Tabs.List>
      {groups.map((group) => (
        <Tabs.Panel key={group.key} value={group.key} className={classes['panel'] ?? ''}>
          <p>
            <strong>
              {group.setup.targets.filter((target) => target.raw !== null).length} of {group.setup.targets.length} codes
              get a target.
            </strong>{' '}
            The limit is {kmhWords(group.setup.limitKmh)}. {group.setup.worst?.says}
          </p>
          <FindingList
            findings={group.setup.findings}
            actFor={(finding) =>
              isLead && finding.level === 'decide' ? (
                <Decide finding={finding} orderId={view.order.id} typeId={group.type.id} onDone={onDone} />
              ) : null
            }
          />
          {group.setup.tests && (
            <p className={classes['proofs']} role="note" aria-label="To be proved on the vehicle">
              <strong>{group.setup.tests.length} to be proved on the vehicle:</strong>{' '}
              {group.setup.tests.map(({ title }) => title).join('; ')}.
            </p>
          )}
          <SetupTable setup={group.setup} map={group.map} />
          <WhatIf group={group} setups={setups} />
        </Tabs.Panel>
      ))}
    </Tabs>
  );
}

/** How much stands against a type's setup, as a word beside its name. */
function Pressing({ group: { setup } }: { readonly group: GroupSetup }) {
  const stops = setup.findings.filter((finding) => finding.level === 'stop').length;
  const open = setup.findings.filter(isOpen).length;
  if (stops > 0) return <em data-kind="stop">{stops === 1 ? 'a stop' : `${stops} stops`}</em>;
  return open > 0 ? <em data-kind="decide">{open} to decide</em> : null;
}

function Acted({ acted: { revised, returned, stayed = [] } }: { readonly acted: OrderActed }) {
  const says = [
    revised === 0
      ? 'No unit under way had to be worked out anew.'
      : `${revised} ${revised === 1 ? 'unit' : 'units'} under way worked out anew.`,
    returned.length === 0
      ? 'None that was done comes back.'
      : `Back on the line: ${returned.map(({ serial, says: why }) => `${serial} (${why})`).join(' ')}`,
    ...stayed.map(({ serial, says: why }) => `${serial} stays: ${why}`),
  ].join(' ');
  return <Notice kind={returned.length + stayed.length > 0 ? 'care' : 'done'} title="Kept" says={says} />;
}
