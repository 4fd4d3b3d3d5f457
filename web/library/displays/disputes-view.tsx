import { Select, Textarea, TextInput } from '@mantine/core';
import { codeTitle } from '@decurio/core';
import { DISPUTE_KINDS, type DisputeKind, type DisputeView, type LibraryEntry } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import { Busy, Notice } from '../../ui/notice.js';
import { whenFull } from '../../ui/when.js';
import classes from './displays.module.css';

/** What benches met that this map does not say, open ones first. */
export function DisputesView({
  entry,
  maySettle,
}: {
  readonly entry: LibraryEntry<'displayMap'>;
  readonly maySettle: boolean;
}) {
  const disputes = api.useDisputesQuery(entry.id);
  const problem = asProblem(disputes.error);
  if (problem && !disputes.data)
    return (
      <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void disputes.refetch() }} />
    );
  if (!disputes.data) return <Busy />;
  return (
    <>
      {disputes.data.length === 0 && <p>Nobody has met anything that this map does not say.</p>}
      <ul className={classes['disputes']} aria-label="Disputes">
        {disputes.data.map((dispute) => (
          <Dispute key={dispute.id} dispute={dispute} maySettle={maySettle} />
        ))}
      </ul>
      <Raise entry={entry} />
    </>
  );
}

function Dispute({ dispute, maySettle }: { readonly dispute: DisputeView; readonly maySettle: boolean }) {
  const [settle, { error, isLoading }] = api.useSettleDisputeMutation();
  const draft = useDraft(`settle.${dispute.id}`, { words: '' });
  const { words } = draft.value;
  const problem = asProblem(error);
  const { label, kind, says, serial, by, at, mapVersion, settled } = dispute;
  return (
    <li data-settled={settled !== null}>
      <p>
        <strong>{label === null ? DISPUTE_KINDS[kind] : `${label}: ${DISPUTE_KINDS[kind].toLowerCase()}`}</strong>
      </p>
      <p>{says}</p>
      <p className="soft">
        {by}, {whenFull(at)}
        {serial === null ? '' : `, unit ${serial}`}, version {mapVersion}
      </p>
      {settled ? (
        <p>
          Settled by {settled.by} on {whenFull(settled.at)}: {settled.words}
        </p>
      ) : (
        maySettle && (
          <form
            className={classes['row']}
            onSubmit={(event) => {
              event.preventDefault();
              void settle({ id: dispute.id, words: words.trim() }).then(({ error }) => !error && draft.forget());
            }}
          >
            <TextInput
              aria-label={`How ${label ?? 'it'} was settled`}
              placeholder="How was it settled?"
              value={words}
              onChange={(e) => draft.change({ words: e.target.value })}
              error={problem?.fields ? Object.values(problem.fields).join(' ') : problem?.message}
              maxLength={500}
            />
            <ActButton type="submit" busy={isLoading} onAct={() => undefined}>
              Settle
            </ActButton>
          </form>
        )
      )}
    </li>
  );
}

const NOTHING_DISPUTED = {
  label: null as string | null,
  kind: 'otherRange' as DisputeKind,
  says: '',
  serial: '',
};

function Raise({ entry }: { readonly entry: LibraryEntry<'displayMap'> }) {
  const [raise, { error, isLoading }] = api.useRaiseDisputeMutation();
  const draft = useDraft(`dispute.${entry.id}`, NOTHING_DISPUTED);
  const { label, kind, says, serial } = draft.value;
  const problem = asProblem(error);
  const submit = async () => {
    const body = {
      id: crypto.randomUUID(),
      mapId: entry.id,
      mapVersion: entry.version,
      label,
      kind,
      says: says.trim(),
      serial: serial.trim() === '' ? null : serial.trim(),
    };
    const answer = await raise(body);
    if (answer.data) draft.startAfresh();
  };
  return (
    <form
      className={classes['form']}
      aria-label="Dispute this map"
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <h2>A display does otherwise?</h2>
      <Begun draft={draft} />
      <div className={classes['row']}>
        <Select
          label="Code"
          clearable
          searchable
          placeholder="the display as a whole"
          value={label}
          onChange={(label) => draft.change({ label })}
          data={entry.document.codes.map((code) => ({
            value: code.label,
            label: `${code.label}  ${codeTitle(code)}`,
          }))}
        />
        <Select
          label="What is it"
          allowDeselect={false}
          value={kind}
          onChange={(value) => draft.change({ kind: (value ?? 'other') as DisputeKind })}
          data={Object.entries(DISPUTE_KINDS).map(([value, title]) => ({ value, label: title }))}
        />
        <TextInput
          label="Unit"
          value={serial}
          onChange={(e) => draft.change({ serial: e.target.value })}
          maxLength={40}
          data-scan-guard
          autoComplete="off"
        />
      </div>
      <Textarea
        label="What the display does"
        autosize
        minRows={2}
        value={says}
        onChange={(e) => draft.change({ says: e.target.value })}
        maxLength={500}
        error={problem?.fields?.['says'] ?? (problem && !problem.fields ? problem.message : undefined)}
      />
      <div className={classes['acts']}>
        <ActButton type="submit" busy={isLoading} onAct={() => undefined}>
          Dispute it
        </ActButton>
      </div>
    </form>
  );
}
