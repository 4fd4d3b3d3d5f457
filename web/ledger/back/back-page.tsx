import { SegmentedControl, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import {
  codeTitle,
  findCode,
  foldVisit,
  gestureWords,
  glassLabel,
  isKeyed,
  lastShown,
  mapTitle,
  meaningBeside,
  mayHold,
  pagesListing,
  parseTyped,
  shortSeal,
  type Code,
  type DisplayMap,
  type HandoverState,
  type VisitState,
} from '@decurio/core';
import type { LedgerRecordView } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { useReadRoute } from '../../ui/use-read-route.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import { ActButton } from '../../ui/act-button.js';
import { capital } from '../../ui/capital.js';
import { Busy, Notice } from '../../ui/notice.js';
import { ReasonAct } from '../../ui/reason-act.js';
import { whenFull } from '../../ui/when.js';
import { ledgerApi } from '../ledger-api.js';
import { DriftTable } from './drift-table.js';
import classes from './back-page.module.css';

/** A unit back from whoever had it: read it, and be told in one line whether it may go out again. Made for a phone too. */
export function BackPage() {
  const { visitId = '' } = useParams();
  const { data: record, error } = api.useRecordQuery(visitId);
  const { data: handover } = api.useHandoverQuery(visitId, { skip: record?.sealedAt === '' });
  const problem = asProblem(error);
  const state = useMemo(() => {
    const fold = record ? foldVisit(record.evidence) : null;
    return fold?.ok ? fold.value : null;
  }, [record]);
  if (problem) return <Notice kind="stop" title="This record cannot be shown" says={problem.message} page />;
  if (record?.sealedAt === '')
    return <Notice kind="note" says="It was not signed off: prepare it on the bench." page />;
  if (!record || !handover || !state) return <Busy />;
  return (
    <div className={classes['page']}>
      <header>
        <p className="cap">Back from {handover.state.out?.to ?? handover.state.back?.from ?? 'whoever had it'}</p>
        <h1 className={classes['serial']}>{record.serial}</h1>
        <p className="soft">
          {record.typeName}, {mapTitle(record.map)}. Left {whenFull(record.sealedAt)}, seal {shortSeal(record.seal)}.
        </p>
      </header>
      {handover.state.out && !handover.state.out.isVehicle ? (
        <Reading
          record={record}
          state={state}
          out={handover.state.out}
          pinWasSet={handover.state.pins.some(({ opens }) => opens === 'menu')}
        />
      ) : handover.state.back ? (
        <Verdict record={record} back={handover.state.back} />
      ) : (
        <Notice kind="note" says="It is in the house: it was not handed over since it was sealed." />
      )}
    </div>
  );
}

/** Codes that can have moved: those that keys move, and the odometer. */
const mayHaveMoved = (map: DisplayMap, left: Readonly<Record<string, number>>): readonly Code[] =>
  map.codes.filter(
    ({ label, access, function: what }) =>
      left[label] !== undefined &&
      (what === 'odometer' || access === 'open' || access === 'pin') &&
      what !== 'clock' &&
      pagesListing(map, label).length > 0,
  );

interface ReadingProps {
  readonly record: LedgerRecordView;
  readonly state: VisitState;
  readonly out: NonNullable<HandoverState['out']>;
  readonly pinWasSet: boolean;
}

function Reading({ record, state, out, pinWasSet }: ReadingProps) {
  const { map, visitId } = record;
  const left = useMemo(() => lastShown(state), [state]);
  const codes = useMemo(() => mayHaveMoved(map, left), [map, left]);
  const labels = useMemo(() => codes.map(({ label }) => label), [codes]);
  const route = useReadRoute(map, labels, left);
  const draft = useDraft(`back.${visitId}`, { typed: {} as Readonly<Record<string, string>>, pin: '', errors: '' });
  const { typed, pin, errors } = draft.value;
  const [add, adding] = api.useAddHandoverMutation();
  const [id] = useState(() => crypto.randomUUID());
  // What the plan does not come to, since the values it left with hide it, is asked for last.
  const shown = route?.order.filter((label) => labels.includes(label)) ?? [];
  const order = [...shown, ...labels.filter((label) => !shown.includes(label))];
  const open = order.filter((label) => (typed[label] ?? '').trim() === '');
  const readings = order.map((label) => ({ label, read: readOf(findCode(map, label), typed[label] ?? '') }));
  const wrong = readings.find(({ label, read }) => read === undefined && !open.includes(label));
  const isWhole = open.length === 0 && wrong === undefined && (!pinWasSet || pin !== '');
  const problem = asProblem(adding.error);
  const judge = async () => {
    if (!isWhole) return;
    const answer = await add({
      visitId,
      body: {
        id,
        kind: 'cameBack',
        data: {
          values: Object.fromEntries(
            readings.flatMap(({ label, read }) => (read === undefined ? [] : [[label, read]])),
          ),
          asksPin: pin === '' || pin === 'unseen' ? null : pin === 'asks',
          errors: errors.split(/[\s,]+/).filter((word) => word !== ''),
        },
      },
    });
    if (!answer.error) draft.forget();
  };
  return (
    <form
      className={classes['reading']}
      onSubmit={(event) => {
        event.preventDefault();
        void judge();
      }}
      onKeyDown={(event) => {
        // Enter goes on to the next code, as one reads them, and judges once all are read.
        if (event.key !== 'Enter' || isWhole || !(event.target instanceof HTMLInputElement)) return;
        event.preventDefault();
        const fields = [...event.currentTarget.querySelectorAll('input')];
        fields[fields.indexOf(event.target) + 1]?.focus();
      }}
    >
      <Begun draft={draft} />
      <p>
        Out with {out.to} since {whenFull(out.at)}. Read what the glass shows; what it should show is told afterwards.
      </p>
      {map.dangers.map(({ caution }) => (
        <Notice key={caution} kind="care" says={caution} />
      ))}
      {isKeyed(map) && (
        <p className="soft">
          {capital(map.menu.opens.map(({ gesture }) => gestureWords(map, gesture)).join(', or '))} to open the menu
          {map.menu.close ? `, ${gestureWords(map, map.menu.close)} to leave it` : ''}. Change nothing.
        </p>
      )}
      <ol className={classes['codes']}>
        {order.map((label, i) => {
          const code = findCode(map, label);
          if (!code) return null;
          const text = typed[label] ?? '';
          const read = text.trim() === '' ? undefined : readOf(code, text);
          return (
            <li key={label}>
              <TextInput
                label={`${glassLabel(code)} · ${codeTitle(code)}`}
                description={route?.wayTo(label)}
                value={text}
                onChange={({ target }) => draft.change({ typed: { ...typed, [label]: target.value } })}
                error={text.trim() !== '' && read === undefined ? 'Type what it shows, or "not shown".' : null}
                rightSection={
                  typeof read === 'number' && mayHold(code, read) ? (
                    <small className={classes['meaning']}>{meaningBeside(code, read)}</small>
                  ) : null
                }
                rightSectionWidth={150}
                inputMode={code.shows ? 'text' : 'decimal'}
                autoFocus={i === 0}
                autoComplete="off"
                data-scan-guard={code.shows ? 'words' : true}
              />
            </li>
          );
        })}
      </ol>
      {pinWasSet && (
        <div role="group" aria-label="Its PIN" className={classes['ask']}>
          <p>A PIN was set when it left. Does it ask for one?</p>
          <SegmentedControl
            value={pin}
            onChange={(next) => draft.change({ pin: next })}
            data={[
              { value: 'asks', label: 'it asks' },
              { value: 'not', label: 'it does not' },
              { value: 'unseen', label: 'not looked at' },
            ]}
          />
        </div>
      )}
      <TextInput
        label="Errors that stand on the glass"
        description="separated by blanks; empty where none stands"
        value={errors}
        onChange={({ target }) => draft.change({ errors: target.value })}
        maxLength={120}
        autoComplete="off"
        data-scan-guard="words"
      />
      {problem && <Notice kind="stop" says={problem.message} />}
      <div className={classes['acts']}>
        <ActButton look="main" type="submit" disabled={!isWhole} busy={adding.isLoading} onAct={() => void judge()}>
          May it go out again?
        </ActButton>
        {open.length > 0 && (
          <span className="soft">{open.length === 1 ? 'One code is' : `${open.length} codes are`} not read yet.</span>
        )}
      </div>
    </form>
  );
}

/** What was typed as raw digits; null for not shown, undefined for nothing that can be read. */
function readOf(code: Code | undefined, text: string): number | null | undefined {
  if (!code) return undefined;
  if (/^not shown$/i.test(text.trim()) || text.trim() === '–') return null;
  const parsed = parseTyped(code, text);
  return parsed.ok ? parsed.value : undefined;
}

function Verdict({
  record: { visitId, unitId },
  back,
}: {
  readonly record: LedgerRecordView;
  readonly back: NonNullable<HandoverState['back']>;
}) {
  const navigate = useNavigate();
  const [takeUp, taking] = ledgerApi.useTakeUpMutation();
  const [id] = useState(() => crypto.randomUUID());
  const mayGo = back.mayGoOut === true;
  return (
    <>
      <Notice kind={mayGo ? 'done' : 'stop'} says={back.says ?? ''} />
      <p className="soft">
        Read by {back.by}, {whenFull(back.at)}. Legal values are the local authority's; what is said here is what its
        record says.
      </p>
      <DriftTable drifts={back.drifts ?? []} />
      {mayGo ? (
        <Link to={`/bench/${unitId}`}>Papers and handing over</Link>
      ) : (
        <ReasonAct
          place={`take-up/${visitId}`}
          label="Set it right: why it is prepared again"
          act="Set it right"
          look="main"
          busy={taking.isLoading}
          error={asProblem(taking.error)?.message}
          onAct={async (why) => {
            const answer = await takeUp({ visitId, body: { id, why } });
            if ('error' in answer) return false;
            void navigate(`/bench/${unitId}`);
            return true;
          }}
        />
      )}
      <Link to={`/ledger/${visitId}`}>How it left</Link>
    </>
  );
}
