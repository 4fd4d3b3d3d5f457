import { lazy, Suspense, useState } from 'react';
import { Link, useParams } from 'react-router';
import { checkedLine, mapTitle, type DisplayMap } from '@decurio/core';
import type { LibraryEntry, LibraryKind } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { useSession } from '../state/session.js';
import { Busy, Notice } from '../ui/notice.js';
import { DisplayPage } from './displays/display-page.js';
import { ClassSheet, HouseRulesSheet, TypeSheet } from './sheets.js';
import classes from './library-page.module.css';

const NewDisplay = lazy(() => import('./displays/new-display.js').then((m) => ({ default: m.NewDisplay })));

const SHELVES: readonly { readonly kind: LibraryKind; readonly title: string }[] = [
  { kind: 'displayMap', title: 'Displays' },
  { kind: 'vehicleType', title: 'Types' },
  { kind: 'rulePack', title: 'Rule packs' },
  { kind: 'houseRules', title: 'House rules' },
];

/** What setups are worked out from, to be read: display maps, types, rule packs and house rules. */
export function LibraryPage() {
  const params = useParams();
  const { who } = useSession();
  const disputed = new Set(api.useDisputesQuery(null).data?.filter((dispute) => dispute.settled === null).map((dispute) => dispute.mapId));
  const isNew = params['id'] === 'new' && params['kind'] === 'displayMap';
  const [chosen, setChosen] = useState<LibraryKind>('displayMap');
  const kind = SHELVES.find((shelf) => shelf.kind === params['kind'])?.kind ?? chosen;
  const { data, error, refetch } = api.useLibraryQuery(kind);
  const problem = asProblem(error);
  const entry = data?.find((e) => e.id === params['id']) ?? data?.[0];
  return (
    <div className={classes['page']}>
      <nav className={classes['shelves']} aria-label="Library">
        {SHELVES.map((shelf) => (
          <div key={shelf.kind}>
            <Link to="/library" className={classes['shelf']} aria-current={shelf.kind === kind} onClick={() => setChosen(shelf.kind)}>
              {shelf.title}
            </Link>
            {shelf.kind === kind && (
              <ul>
                {data?.map((e) => (
                  <li key={e.id}>
                    <Link to={`/library/${kind}/${e.id}`} aria-current={!isNew && e.id === entry?.id ? 'page' : undefined}>
                      {e.kind === 'displayMap' ? mapTitle(e.document as DisplayMap) : e.name}
                      {e.kind === 'displayMap' && (e.document as DisplayMap).confirmed === null && <small> draft</small>}
                      {e.kind === 'displayMap' && disputed.has(e.id) && <small> disputed</small>}
                    </Link>
                  </li>
                ))}
                {kind === 'displayMap' && who?.role !== 'technician' && (
                  <li>
                    <Link to="/library/displayMap/new" aria-current={isNew ? 'page' : undefined} className={classes['add']}>
                      New display
                    </Link>
                  </li>
                )}
              </ul>
            )}
          </div>
        ))}
      </nav>
      <section className={classes['sheet']} aria-label="Document">
        {problem && <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} />}
        {!data && !problem && <Busy />}
        {isNew && (
          <Suspense fallback={<Busy />}>
            <NewDisplay taken={(data ?? []).map((e) => e.id)} />
          </Suspense>
        )}
        {data && !entry && !isNew && <Notice kind="note" title="This shelf is empty" says="A lead adds documents here; until then no order that needs them can be taken in." />}
        {entry && !isNew && <Sheet entry={entry} />}
      </section>
    </div>
  );
}

function Sheet({ entry }: { readonly entry: LibraryEntry }) {
  switch (entry.kind) {
    case 'displayMap':
      return <DisplayPage key={entry.id} entry={entry as LibraryEntry<'displayMap'>} />;
    case 'vehicleType':
      return <TypeSheet entry={entry as LibraryEntry<'vehicleType'>} />;
    case 'rulePack': {
      const pack = entry as LibraryEntry<'rulePack'>;
      return <ClassSheet entry={pack} checked={checkedLine(pack.document)} />;
    }
    case 'houseRules':
      return <HouseRulesSheet entry={entry as LibraryEntry<'houseRules'>} />;
  }
}
