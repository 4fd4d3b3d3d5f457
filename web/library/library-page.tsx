import { lazy, Suspense, useState } from 'react';
import { Link, useParams } from 'react-router';
import { checkStanding, mapTitle, type DisplayMap, type HouseRules, type RulePack } from '@decurio/core';
import type { LibraryEntry, LibraryKind } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { useSession } from '../state/session.js';
import { Busy, Notice } from '../ui/notice.js';
import { today } from '../ui/house-zone.js';
import { BringIn } from './document-acts.js';
import { CheckListSheet } from './checks/check-list-sheet.js';
import { DisplayPage } from './displays/display-page.js';
import { HouseRulesSheet } from './house/house-rules-sheet.js';
import { NoticeSheet } from './notices/notice-sheet.js';
import { RulePackSheet } from './rules/rule-pack-sheet.js';
import { Starters } from './rules/starters.js';
import { Shelves, SHELVES } from './shelves.js';
import { TypeSheet } from './types/type-sheet.js';
import classes from './library-page.module.css';

const NewDisplay = lazy(() => import('./displays/new-display.js').then((m) => ({ default: m.NewDisplay })));
const EditDocument = lazy(() => import('./edit-document.js').then((m) => ({ default: m.EditDocument })));

/** What setups are worked out from: display maps, types, rule packs and house rules. */
export function LibraryPage() {
  const params = useParams();
  const { who } = useSession();
  const [chosen, setChosen] = useState<LibraryKind>('displayMap');
  const kind = SHELVES.find((shelf) => shelf.kind === params['kind'])?.kind ?? chosen;
  const { data, error, refetch } = api.useLibraryQuery(kind);
  const problem = asProblem(error);
  const isNew = params['id'] === 'new';
  const entry = data?.find((e) => e.id === params['id']) ?? data?.[0];
  return (
    <div className={classes['page']}>
      <Shelves current={kind} onChoose={setChosen}>
        <ul>
          {data?.map((e) => (
            <li key={e.id}>
              <Link to={`/library/${kind}/${e.id}`} aria-current={!isNew && e.id === entry?.id ? 'page' : undefined}>
                {e.kind === 'displayMap' ? mapTitle(e.document as DisplayMap) : e.name}
                <Marks entry={e} />
              </Link>
            </li>
          ))}
          {who?.role !== 'technician' && (
            <li>
              <Link to={`/library/${kind}/new`} aria-current={isNew ? 'page' : undefined} className={classes['add']}>
                {SHELVES.find((shelf) => shelf.kind === kind)?.add}
              </Link>
            </li>
          )}
        </ul>
      </Shelves>
      <section className={classes['sheet']} aria-label="Document">
        {problem && (
          <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} />
        )}
        {!data && !problem && <Busy />}
        <Suspense fallback={<Busy />}>
          {data && isNew && <NewDocument kind={kind} taken={data.map((e) => e.id)} />}
          {data && !entry && !isNew && (
            <Notice
              kind="note"
              title="This shelf is empty"
              says="A lead adds documents here; until then no order that needs them can be taken in."
            />
          )}
          {entry &&
            !isNew &&
            (params['view'] === 'edit' && entry.kind !== 'displayMap' ? (
              <EditDocument key={`${entry.kind} ${entry.id}`} entry={entry} />
            ) : (
              <Sheet entry={entry} />
            ))}
        </Suspense>
      </section>
    </div>
  );
}

/** What is to be known of a document before it is opened. */
function Marks({ entry }: { readonly entry: LibraryEntry }) {
  const disputes = api.useDisputesQuery(null).data;
  if (entry.kind === 'displayMap') {
    const isDisputed = disputes?.some((dispute) => dispute.settled === null && dispute.mapId === entry.id) === true;
    return (
      <>
        {(entry.document as DisplayMap).confirmed === null && <small> draft</small>}
        {isDisputed && <small> disputed</small>}
      </>
    );
  }
  if (entry.kind === 'rulePack') {
    const open = (entry.document as RulePack).classes.filter(
      ({ checked }) => checkStanding(checked, today()) !== 'checked',
    ).length;
    return open > 0 ? <small> {open} not checked</small> : null;
  }
  return entry.kind === 'houseRules' && (entry.document as HouseRules).customer !== null ? <small> own</small> : null;
}

function NewDocument({ kind, taken }: { readonly kind: LibraryKind; readonly taken: readonly string[] }) {
  if (kind === 'displayMap') return <NewDisplay taken={taken} />;
  return (
    <>
      {kind === 'rulePack' && <Starters />}
      <BringIn
        kind={kind}
        says="JSON as it was exported here or in another house. Bringing in one with a known id makes its next version."
      />
      <EditDocument key={kind} kind={kind} />
    </>
  );
}

function Sheet({ entry }: { readonly entry: LibraryEntry }) {
  switch (entry.kind) {
    case 'displayMap':
      return <DisplayPage key={entry.id} entry={entry as LibraryEntry<'displayMap'>} />;
    case 'vehicleType':
      return <TypeSheet entry={entry as LibraryEntry<'vehicleType'>} />;
    case 'rulePack':
      return <RulePackSheet key={entry.id} entry={entry as LibraryEntry<'rulePack'>} />;
    case 'houseRules':
      return <HouseRulesSheet entry={entry as LibraryEntry<'houseRules'>} />;
    case 'notice':
      return <NoticeSheet entry={entry as LibraryEntry<'notice'>} />;
    case 'checkList':
      return <CheckListSheet entry={entry as LibraryEntry<'checkList'>} />;
  }
}
