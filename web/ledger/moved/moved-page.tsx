import { Progress } from '@mantine/core';
import dayjs from 'dayjs';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Lapsing, MovedDocument, MovedView, MovingKind } from '@decurio/contract';
import { asProblem } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { Busy, Notice } from '../../ui/notice.js';
import { ledgerApi } from '../ledger-api.js';
import { Customers } from './customers.js';
import { useHeld } from './use-held.js';
import classes from './moved-page.module.css';

const KINDS: Readonly<Record<MovingKind, string>> = {
  rulePack: 'Rules',
  vehicleType: 'Type',
  houseRules: 'House rules',
  displayMap: 'Display map',
};

/** What moved since units left under it: who would no longer comply, and calling them back. */
export function MovedPage() {
  const { data, error, refetch } = ledgerApi.useMovedQuery(null);
  const problem = asProblem(error);
  return (
    <div className={classes['page']}>
      <header>
        <p className="cap">
          <Link to="/ledger">Ledger</Link>
        </p>
        <h1>What moved</h1>
        <p>
          Units that are out were prepared under the rules, types, displays and house rules of their day. Here they are
          held against those of today. Legal values are the local authority&rsquo;s: ask it before you call anybody
          back, or let anything stay.
        </p>
      </header>
      {problem && (
        <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} />
      )}
      {!data && !problem && <Busy />}
      {data && <Moved view={data} />}
    </div>
  );
}

function Moved({ view: { documents, lapsing } }: { readonly view: MovedView }) {
  const { who } = useSession();
  const { held, hold, stop } = useHeld();
  const [about, choose] = useState<MovedDocument | null>(null);
  const mayDecide = who?.role !== 'technician';
  return (
    <>
      {lapsing.length > 0 && <Lapses lapsing={lapsing} />}
      {documents.length === 0 ? (
        <Notice
          kind="done"
          title="Nothing moved"
          says="Every unit that is out was prepared under the newest version of its rules, type, display and house rules."
        />
      ) : (
        <ul className={classes['documents']} aria-label="Documents that moved">
          {documents.map((document) => (
            <li key={`${document.kind} ${document.id}`} data-chosen={about === document}>
              <p className="cap">{KINDS[document.kind]}</p>
              <p>
                <b>{document.name}</b>, version {document.version}
              </p>
              <p className="soft">
                {document.unitsBehind === 1 ? '1 unit is' : `${document.unitsBehind} units are`} out under an earlier
                one
              </p>
              {mayDecide && (
                <ActButton
                  look={about === document ? 'main' : 'quiet'}
                  busy={about === document && held?.state === 'running'}
                  onAct={() => {
                    choose(document);
                    void hold(document.kind, document.id);
                  }}
                >
                  Hold them against it
                </ActButton>
              )}
            </li>
          ))}
        </ul>
      )}
      {!mayDecide && documents.length > 0 && <Notice kind="note" says="A lead holds units against newer rules." />}
      {held && about && (
        <>
          {held.state === 'running' && (
            <div className={classes['progress']}>
              <Progress value={held.units === 0 ? 0 : (100 * held.sofar) / held.units} aria-label="How far it came" />
              <span aria-live="polite">
                {held.sofar} of {held.units}
              </span>
              <ActButton look="quiet" onAct={stop}>
                Stop
              </ActButton>
            </div>
          )}
          {held.problem && <Notice kind="stop" says={held.problem} />}
          {held.state === 'stopped' && !held.problem && (
            <Notice kind="care" says={`Stopped after ${held.sofar} of ${held.units}: what stands here is not all.`} />
          )}
          {held.unreadable > 0 && (
            <Notice
              kind="care"
              says={`${held.unreadable} could not be worked out: a document of theirs is not in the library any more.`}
            />
          )}
          {held.state === 'ended' && held.moved.length === 0 && (
            <Notice
              kind="done"
              says={`All ${held.units} comply with version ${held.version} of ${held.name} as they left.`}
            />
          )}
          {held.moved.length > 0 && (
            <Customers
              key={`${about.kind} ${about.id} ${held.version}`}
              about={about}
              held={held}
              onDecided={() => void hold(about.kind, about.id)}
            />
          )}
        </>
      )}
    </>
  );
}

function Lapses({ lapsing }: { readonly lapsing: readonly Lapsing[] }) {
  return (
    <section className={classes['lapses']} aria-label="What ends before long">
      <h2 className="cap">Ends before long</h2>
      <ul>
        {lapsing.map(({ what, title, of, endsOn, unitsOut }) => (
          <li key={`${what} ${title} ${of}`}>
            <b>{dayjs(endsOn).format('D MMM YYYY')}</b>{' '}
            {what === 'class' ? `the check of ${title}, ${of}` : `private land of ${title}, ${of}`}:{' '}
            {unitsOut === 1 ? '1 unit is' : `${unitsOut} units are`} out under it.
          </li>
        ))}
      </ul>
    </section>
  );
}
