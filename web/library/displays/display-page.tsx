import { lazy, Suspense } from 'react';
import { Link, useParams } from 'react-router';
import { mapTitle, type DisplayMap } from '@decurio/core';
import type { LibraryEntry } from '@decurio/contract';
import { api } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { Busy, Notice } from '../../ui/notice.js';
import { saveFile } from '../../ui/save-file.js';
import { MapSheet } from './map-sheet.js';
import { mapText } from './map-text.js';
import page from '../library-page.module.css';
import classes from './displays.module.css';

// Reading is what most come for; the rest is fetched by those who need it.
const CompareView = lazy(() => import('./compare-view.js').then((m) => ({ default: m.CompareView })));
const DisputesView = lazy(() => import('./disputes-view.js').then((m) => ({ default: m.DisputesView })));
const MapEditor = lazy(() => import('./map-editor.js').then((m) => ({ default: m.MapEditor })));
const TrialsView = lazy(() => import('./trials/trials-view.js').then((m) => ({ default: m.TrialsView })));
const TryView = lazy(() => import('./try-view.js').then((m) => ({ default: m.TryView })));
const VersionsView = lazy(() => import('./versions-view.js').then((m) => ({ default: m.VersionsView })));

const VIEWS = [
  ['read', 'Read'],
  ['try', 'Try'],
  ['trials', 'Trials'],
  ['compare', 'Compare'],
  ['versions', 'Versions'],
  ['disputes', 'Disputes'],
  ['edit', 'Edit'],
] as const;

/** One display map: to be read, tried, compared, edited, confirmed, and disputed. */
export function DisplayPage({ entry }: { readonly entry: LibraryEntry<'displayMap'> }) {
  const { view = 'read' } = useParams();
  const { who } = useSession();
  const disputes = api.useDisputesQuery(entry.id);
  const open = disputes.data?.filter((dispute) => dispute.settled === null).length ?? 0;
  const map = entry.document;
  const mayEdit = who?.role !== 'technician';
  return (
    <>
      <header className={classes['head']}>
        <div>
          <p className="cap">Display map · version {entry.version}</p>
          <h1>
            {mapTitle(map)}
            {view !== 'read' && (
              <span className="hidden-words">, {VIEWS.find(([id]) => id === view)?.[1].toLowerCase()}</span>
            )}
          </h1>
          <p>{map.tellBy}</p>
          <Standing map={map} />
        </div>
        <ActButton onAct={() => saveFile(`${map.id}-v${entry.version}.json`, mapText(map))}>Export</ActButton>
      </header>
      <nav className={classes['views']} aria-label="Views of this display">
        {VIEWS.filter(([id]) => id !== 'edit' || mayEdit).map(([id, title]) => (
          <Link key={id} to={`/library/displayMap/${entry.id}/${id}`} aria-current={view === id ? 'page' : undefined}>
            {title}
            {id === 'disputes' && open > 0 && <b>{open} open</b>}
          </Link>
        ))}
      </nav>
      <div className={classes['view']}>
        <Suspense fallback={<Busy />}>
          <View view={view} entry={entry} mayEdit={mayEdit} />
        </Suspense>
      </div>
    </>
  );
}

interface ViewProps {
  readonly view: string;
  readonly entry: LibraryEntry<'displayMap'>;
  readonly mayEdit: boolean;
}

function View({ view, entry, mayEdit }: ViewProps) {
  switch (view) {
    case 'try':
      return <TryView key={entry.version} map={entry.document} />;
    case 'trials':
      return <TrialsView entry={entry} mayEdit={mayEdit} />;
    case 'compare':
      return <CompareView entry={entry} />;
    case 'versions':
      return <VersionsView entry={entry} mayConfirm={mayEdit} />;
    case 'disputes':
      return <DisputesView entry={entry} maySettle={mayEdit} />;
    case 'edit':
      return mayEdit ? (
        <MapEditor key={entry.version} start={entry.document} isNew={false} />
      ) : (
        <Notice kind="note" says="A lead edits maps. You can dispute one where a display does otherwise." />
      );
    default:
      return (
        <div className={page['read']}>
          <MapSheet map={entry.document} />
        </div>
      );
  }
}

/** Whether anything may leave under this map, and who stands behind it. */
function Standing({ map }: { readonly map: DisplayMap }) {
  if (!map.confirmed)
    return (
      <Notice
        kind="care"
        title="Draft"
        says="Nobody but its writer has held this map against a real unit. It can be practised; nothing is released under it."
      />
    );
  const { by, on, unit, firmware } = map.confirmed;
  return (
    <p className="soft">
      Confirmed by {by} on {on} against unit {unit}, firmware {firmware}.
    </p>
  );
}
