import { TextInput } from '@mantine/core';
import type { LibraryEntry } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { useDraft } from '../../drafts/use-draft.js';
import { ActButton } from '../../ui/act-button.js';
import { Busy, Notice } from '../../ui/notice.js';
import { whenFull } from '../../ui/when.js';
import page from '../library-page.module.css';
import classes from './displays.module.css';

/** Every version there was, and the confirmation of the newest by a second person. */
export function VersionsView({
  entry,
  mayConfirm,
}: {
  readonly entry: LibraryEntry<'displayMap'>;
  readonly mayConfirm: boolean;
}) {
  const versions = api.useVersionsQuery({ kind: 'displayMap', id: entry.id });
  const problem = asProblem(versions.error);
  if (problem && !versions.data)
    return (
      <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void versions.refetch() }} />
    );
  if (!versions.data) return <Busy />;
  return (
    <>
      <p>A version never changes: visits and certificates name the one they used.</p>
      <table className={page['table']} aria-label="Versions">
        <thead>
          <tr className="cap">
            <th scope="col">Version</th>
            <th scope="col">Added</th>
            <th scope="col">By</th>
            <th scope="col">Confirmed</th>
          </tr>
        </thead>
        <tbody>
          {versions.data.map((v) => (
            <tr key={v.version}>
              <th scope="row">{v.version}</th>
              <td>{whenFull(v.addedAt)}</td>
              <td>{v.addedBy}</td>
              <td>{v.confirmed ? `by ${v.confirmed.by} on ${v.confirmed.on}, unit ${v.confirmed.unit}` : 'draft'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {!entry.document.confirmed && mayConfirm && <Confirm entry={entry} writer={versions.data[0]?.addedBy ?? ''} />}
    </>
  );
}

function Confirm({ entry, writer }: { readonly entry: LibraryEntry<'displayMap'>; readonly writer: string }) {
  const [confirm, { error, isLoading }] = api.useConfirmMapMutation();
  const draft = useDraft(`confirmMap.${entry.id}.${entry.version}`, { unit: '', firmware: '' });
  const { unit, firmware } = draft.value;
  const problem = asProblem(error);
  return (
    <form
      className={classes['form']}
      aria-label="Confirm this map"
      onSubmit={(event) => {
        event.preventDefault();
        void confirm({ id: entry.id, body: { version: entry.version, unit: unit.trim(), firmware: firmware.trim() } });
      }}
    >
      <h2>Confirm version {entry.version}</h2>
      <p>
        Walk the menu of a real unit with this map beside it: every code, its range, how it stores, how long it stays
        open. {writer} wrote it, so somebody else confirms.
      </p>
      {problem && (
        <Notice kind="stop" says={problem.fields ? Object.values(problem.fields).join(' ') : problem.message} />
      )}
      <div className={classes['row']}>
        <TextInput
          label="Unit it was held against"
          value={unit}
          onChange={(e) => draft.change({ unit: e.target.value })}
          maxLength={40}
          data-scan-guard
          autoComplete="off"
        />
        <TextInput
          label="Firmware it shows"
          value={firmware}
          onChange={(e) => draft.change({ firmware: e.target.value })}
          maxLength={40}
          autoComplete="off"
        />
      </div>
      <div className={classes['acts']}>
        <ActButton type="submit" look="main" busy={isLoading} onAct={() => undefined}>
          It is so: confirm
        </ActButton>
      </div>
    </form>
  );
}
