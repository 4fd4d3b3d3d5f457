import { Select, Tabs } from '@mantine/core';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import {
  LABEL_SIZES,
  LANGUAGES,
  shortSeal,
  type HandoverState,
  type LabelSize,
  type Language,
  type PaperKind,
  type VisitState,
} from '@decurio/core';
import type { BenchView, HandoverRequest, PapersView } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { ActButton } from '../ui/act-button.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { Busy, Notice } from '../ui/notice.js';
import { GoesAlong } from './goes-along.js';
import { LabelPreview } from './label-preview.js';
import { fetchPdf, openPdf } from './open-pdf.js';
import { OrderPapers } from './order-papers.js';
import { SpareReady } from './spare-ready.js';
import { StorageDialog } from './storage-dialog.js';
import classes from './hand-over.module.css';

export type Add = <K extends HandoverRequest['kind']>(
  kind: K,
  data: Extract<HandoverRequest, { kind: K }>['data'],
) => Promise<boolean>;

const KEPT_LANGUAGE = 'decurio.cardLanguage';
const KEPT_SIZE = 'decurio.labelSize';

/** Step 10, after the seal: the papers as they will print, what goes along, and who received it. */
export function HandOver({ bench, state }: { readonly bench: BenchView; readonly state: VisitState }) {
  const { visitId } = state;
  const papers = api.usePapersQuery(visitId);
  const handover = api.useHandoverQuery(visitId);
  const [send, sending] = api.useAddHandoverMutation();
  const problem = asProblem(papers.error) ?? asProblem(handover.error);
  const add: Add = async (kind, data) => {
    const body = { id: crypto.randomUUID(), kind, data } as HandoverRequest;
    return 'data' in (await send({ visitId, body }));
  };
  if (problem && !(papers.data && handover.data))
    return (
      <Notice
        kind="stop"
        title="Its papers cannot be shown"
        says={`${problem.message} The record is sealed and safe.`}
        act={{
          label: 'Try again',
          onAct: () => {
            void papers.refetch();
            void handover.refetch();
          },
        }}
      />
    );
  if (!papers.data || !handover.data) return <Busy />;
  if (bench.unit.isSpare) return <SpareReady unit={bench.unit} visitId={visitId} state={handover.data.state} />;
  return (
    <div className={classes['page']}>
      <Papers
        bench={bench}
        view={papers.data}
        state={handover.data.state}
        seal={handover.data.seal}
        visitId={visitId}
        add={add}
        problem={asProblem(sending.error)?.message ?? null}
      />
      <GoesAlong
        view={papers.data}
        state={handover.data.state}
        add={add}
        isBusy={sending.isLoading}
        problem={asProblem(sending.error)}
        unitId={bench.unit.id}
        visitId={visitId}
      />
    </div>
  );
}

function Papers({
  bench,
  view,
  state,
  seal,
  visitId,
  add,
  problem,
}: {
  readonly bench: BenchView;
  readonly view: PapersView;
  readonly state: HandoverState;
  readonly seal: string;
  readonly visitId: string;
  readonly add: Add;
  readonly problem: string | null;
}) {
  const navigate = useNavigate();
  const [language, setLanguage] = useState<Language>(() =>
    kept(KEPT_LANGUAGE, Object.keys(LANGUAGES) as Language[], 'en'),
  );
  const [size, setSize] = useState<LabelSize>(() => kept(KEPT_SIZE, Object.keys(LABEL_SIZES) as LabelSize[], 'usual'));
  const [busy, setBusy] = useState(false);
  const [says, setSays] = useState<string | null>(null);
  const [whole, setWhole] = useState(false);
  const [storing, setStoring] = useState(false);
  const card = view.cards.find((each) => each.language === language);
  const query = `language=${language}&size=${size}`;
  const print = async (name: string, made: readonly PaperKind[]) => {
    if (busy) return;
    setBusy(true);
    setSays(null);
    const answer = await fetchPdf(`/visits/${visitId}/${name}.pdf?${query}`);
    setBusy(false);
    if (!answer.ok) return setSays(answer.says);
    openPdf(answer.pdf.bytes, `${bench.unit.serial}-${name}.pdf`);
    if (state.out === null && view.isSealed)
      for (const paper of made)
        await add('paperMade', {
          paper,
          language: paper === 'riderCard' ? language : null,
          sha256: answer.pdf.sha256,
        });
  };
  const letter = view.hasOdometerLetter ? (['odometerLetter'] as const) : [];
  const all = () => void print('papers', ['certificate', ...letter, 'riderCard', 'label', 'tag']);
  useHotkeys({
    Space: all,
    O: () => setWhole(true),
    A: () => setStoring(true),
    L: () => void navigate(`/line/${bench.orderId}`),
  });
  return (
    <section className={classes['papers']} aria-label="Papers">
      <p className="cap">Hand over · sealed {shortSeal(seal)}</p>
      <h2>{bench.unit.serial}: its papers, as they will print</h2>
      <div className={classes['both']}>
        <div>
          <Select
            label="Class label, true size"
            value={size}
            allowDeselect={false}
            onChange={(value) => {
              const next = (value ?? 'usual') as LabelSize;
              localStorage.setItem(KEPT_SIZE, next);
              setSize(next);
            }}
            data={Object.entries(LABEL_SIZES).map(([value, { widthMm, heightMm }]) => ({
              value,
              label: `${widthMm} by ${heightMm} mm`,
            }))}
          />
          <LabelPreview label={view.label} size={size} />
          <p className="soft">
            Letters {view.label.letterMm} mm high or more.
            {view.label.asked.length > 0 && ` The class asks for: ${view.label.asked.join(', ')}.`}
          </p>
        </div>
        <div className={classes['card']}>
          <Tabs
            value={language}
            onChange={(value) => {
              const next = (value ?? 'en') as Language;
              localStorage.setItem(KEPT_LANGUAGE, next);
              setLanguage(next);
            }}
          >
            <Tabs.List aria-label="Language of the rider card">
              {Object.entries(LANGUAGES).map(([code, title]) => (
                <Tabs.Tab key={code} value={code}>
                  {title}
                </Tabs.Tab>
              ))}
            </Tabs.List>
          </Tabs>
          {card && (
            <div className={classes['sheet']} lang={language} tabIndex={0} role="region" aria-label="Rider card">
              <h3>{card.title}</h3>
              <dl>
                {card.rows.map(({ name, says: words }) => (
                  <div key={name}>
                    <dt>{name}</dt>
                    <dd>{words}</dd>
                  </div>
                ))}
              </dl>
            </div>
          )}
        </div>
      </div>
      {says !== null && <Notice kind="care" says={says} />}
      <ul className={classes['each']} aria-label="One by one">
        {(
          [
            ['certificate', 'Configuration certificate', ['certificate']],
            ['rider-card', 'Rider card', ['riderCard']],
            ['label', 'Class label', ['label']],
            ['tag', 'Unit tag', ['tag']],
            ...(view.hasOdometerLetter ? ([['odometer-letter', 'Odometer letter', ['odometerLetter']]] as const) : []),
          ] as const
        ).map(([name, title, made]) => (
          <li key={name}>
            <button type="button" onClick={() => void print(name, made)}>
              {title}
              <small>{madeWords(state, made[0])}</small>
            </button>
          </li>
        ))}
        <li>
          <Link to={`/ledger/${visitId}`}>
            Its record <small>in the ledger</small>
          </Link>
        </li>
      </ul>
      <div className={classes['acts']}>
        <ActButton look="main" hotkey="Space" busy={busy} onAct={all}>
          Print these {view.hasOdometerLetter ? 'five' : 'four'}
        </ActButton>
        <ActButton hotkey="O" onAct={() => setWhole(true)}>
          The whole order, {view.order.units} units
        </ActButton>
        {state.out === null && view.isSealed && (
          <ActButton hotkey="A" onAct={() => setStoring(true)}>
            {state.storage ? 'In storage' : 'Put away'}
          </ActButton>
        )}
        <ActButton hotkey="L" onAct={() => void navigate(`/line/${bench.orderId}`)}>
          To Line
        </ActButton>
      </div>
      {storing && state.out === null && (
        <StorageDialog
          visitId={visitId}
          pack={bench.type.pack}
          storage={state.storage}
          add={add}
          problem={problem}
          onClose={() => setStoring(false)}
        />
      )}
      {whole && (
        <OrderPapers
          orderId={view.order.id}
          number={view.order.number}
          language={language}
          size={size}
          onClose={() => setWhole(false)}
        />
      )}
    </section>
  );
}

const madeWords = ({ papers }: HandoverState, kind: PaperKind): string =>
  papers.some(({ paper }) => paper === kind) ? 'made' : 'not made yet';

function kept<T extends string>(at: string, all: readonly T[], otherwise: T): T {
  const found = localStorage.getItem(at);
  return all.find((each) => each === found) ?? otherwise;
}
