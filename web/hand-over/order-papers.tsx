import { Progress } from '@mantine/core';
import { wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { labelSheet, type LabelSize, type Language } from '@decurio/core';
import { api } from '../state/api.js';
import { ActButton } from '../ui/act-button.js';
import { Dialog } from '../ui/dialog.js';
import { Busy, Notice } from '../ui/notice.js';
import type { Binder } from '../workers/bundle-worker.js';
import { fetchPdf, openPdf } from './open-pdf.js';
import classes from './hand-over.module.css';

/** So many are drawn at once: as many as the server has threads for it. */
const AT_ONCE = 2;

type Standing =
  | { readonly kind: 'idle' }
  | { readonly kind: 'running'; readonly done: number; readonly of: number }
  | { readonly kind: 'done'; readonly pages: number; readonly left: readonly string[] }
  | { readonly kind: 'failed'; readonly says: string };

/** All papers of an order in one: unit by unit, with progress, and it can be stopped. */
export function OrderPapers({
  orderId,
  number,
  language,
  size,
  onClose,
}: {
  readonly orderId: string;
  readonly number: string;
  readonly language: Language;
  readonly size: LabelSize;
  readonly onClose: () => void;
}) {
  const line = api.useLineQuery(orderId);
  const [standing, setStanding] = useState<Standing>({ kind: 'idle' });
  const stop = useRef<AbortController | null>(null);
  useEffect(() => () => stop.current?.abort(), []);
  // A spare is no vehicle that leaves.
  const units = (line.currentData?.units ?? []).filter(({ isSpare }) => !isSpare);
  const begun = units.filter(({ visitId }) => visitId !== null);
  const sealed = begun.filter(({ status }) => status === 'sealed');
  const leftOut = (all: readonly (typeof units)[number][]) =>
    units.filter((unit) => !all.includes(unit)).map(({ serial }) => serial);
  const print = async (all: readonly (typeof units)[number][]) => {
    const own = new AbortController();
    stop.current = own;
    setStanding({ kind: 'running', done: 0, of: all.length });
    const worker = new Worker(new URL('../workers/bundle-worker.ts', import.meta.url), { type: 'module' });
    const binder = wrap<Binder>(worker);
    try {
      await binder.begin(`Papers of ${number}`);
      const note = await fetchPdf(`/orders/${orderId}/delivery-note.pdf`, own.signal);
      if (!note.ok) return setStanding({ kind: 'failed', says: note.says });
      await binder.add(note.pdf.bytes);
      let pages = 0;
      const query = `language=${language}&size=${size}`;
      const fetched = new Map<number, ReturnType<typeof fetchPdf>>();
      const ask = (i: number) => {
        const unit = all[i];
        if (unit) fetched.set(i, fetchPdf(`/visits/${unit.visitId ?? ''}/papers.pdf?${query}`, own.signal));
      };
      for (let i = 0; i < AT_ONCE; i++) ask(i);
      for (const [i, unit] of all.entries()) {
        const answer = await fetched.get(i);
        fetched.delete(i);
        ask(i + AT_ONCE);
        if (!answer?.ok)
          return setStanding({
            kind: 'failed',
            says: `${unit.serial}: ${answer?.says ?? ''} ${i} of ${all.length} were drawn.`,
          });
        pages = await binder.add(answer.pdf.bytes);
        setStanding({ kind: 'running', done: i + 1, of: all.length });
      }
      openPdf(await binder.end(), `${number}-papers.pdf`);
      setStanding({ kind: 'done', pages, left: leftOut(all) });
    } finally {
      worker.terminate();
    }
  };
  const printLabels = async () => {
    const own = new AbortController();
    stop.current = own;
    const { perSheet } = labelSheet(size);
    const sheets = Math.ceil(sealed.length / perSheet);
    const worker = new Worker(new URL('../workers/bundle-worker.ts', import.meta.url), { type: 'module' });
    const binder = wrap<Binder>(worker);
    try {
      await binder.begin(`Labels of ${number}`);
      for (let sheet = 1; sheet <= sheets; sheet++) {
        setStanding({ kind: 'running', done: Math.min(sealed.length, (sheet - 1) * perSheet), of: sealed.length });
        const answer = await fetchPdf(`/orders/${orderId}/labels.pdf?size=${size}&sheet=${sheet}`, own.signal);
        if (!answer.ok) return setStanding({ kind: 'failed', says: answer.says });
        await binder.add(answer.pdf.bytes);
      }
      openPdf(await binder.end(), `${number}-labels.pdf`);
      setStanding({ kind: 'done', pages: sheets, left: leftOut(sealed) });
    } finally {
      worker.terminate();
    }
  };
  return (
    <Dialog onClose={onClose} title={`All papers of order ${number}`}>
      <div className={classes['order']}>
        {line.isLoading && <Busy />}
        <p>
          {sealed.length} of {units.length} units are signed off. The delivery note comes first, then of each unit its
          certificate, rider card, label and tag.
        </p>
        {standing.kind === 'running' && (
          <>
            <Progress value={(100 * standing.done) / standing.of} aria-label="Papers drawn" color="verdigris" />
            <p role="status">
              {standing.done} of {standing.of} units drawn
            </p>
            <ActButton look="care" onAct={() => stop.current?.abort()}>
              Stop
            </ActButton>
          </>
        )}
        {standing.kind === 'failed' && <Notice kind="care" says={standing.says} />}
        {standing.kind === 'done' && (
          <Notice
            kind="done"
            says={`${standing.pages} ${standing.pages === 1 ? 'page' : 'pages'}, opened beside.${standing.left.length > 0 ? ` Not among them: ${standing.left.slice(0, 12).join(', ')}${standing.left.length > 12 ? ` and ${standing.left.length - 12} more` : ''}.` : ''}`}
          />
        )}
        {standing.kind !== 'running' && (
          <div className={classes['acts']}>
            <ActButton look="main" disabled={sealed.length === 0} onAct={() => void print(sealed)}>
              The {sealed.length} signed off
            </ActButton>
            {begun.length > sealed.length && (
              <ActButton onAct={() => void print(begun)}>All {begun.length} begun, drafts among them</ActButton>
            )}
            <ActButton disabled={sealed.length === 0} onAct={() => void printLabels()}>
              The {sealed.length} class labels, {labelSheet(size).perSheet} on a sheet
            </ActButton>
            <ActButton onAct={onClose}>Close</ActButton>
          </div>
        )}
      </div>
    </Dialog>
  );
}
