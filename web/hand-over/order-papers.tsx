import { Progress } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { labelSheet, type LabelSize, type Language } from '@decurio/core';
import { api } from '../state/api.js';
import { ActButton } from '../ui/act-button.js';
import { Dialog } from '../ui/dialog.js';
import { Busy, Notice } from '../ui/notice.js';
import { bindPapers, type BundlePart } from './bind-papers.js';
import { openPdf } from './open-pdf.js';
import classes from './hand-over.module.css';

type Standing =
  | { readonly kind: 'idle' }
  | { readonly kind: 'running'; readonly drawing: string; readonly done: number; readonly of: number }
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
  const bind = async (
    name: string,
    parts: readonly BundlePart[],
    /** Units that are drawn once so many parts are. */
    unitsAt: (parts: number) => number,
    all: readonly (typeof units)[number][],
  ) => {
    const own = new AbortController();
    stop.current = own;
    setStanding({ kind: 'running', drawing: parts[0]?.name ?? '', done: 0, of: all.length });
    const made = await bindPapers(`${name} of ${number}`, parts, own.signal, (part, done) =>
      setStanding({ kind: 'running', drawing: part.name, done: unitsAt(done), of: all.length }),
    );
    if (!made.ok) {
      const [before, after] = made.part
        ? [`${made.part.name}: `, ` ${unitsAt(made.done)} of ${all.length} units were drawn.`]
        : ['', ''];
      return setStanding({ kind: 'failed', says: `${before}${made.says}${after}` });
    }
    openPdf(made.bytes, `${number}-${name.toLowerCase()}.pdf`);
    setStanding({ kind: 'done', pages: made.pages, left: leftOut(all) });
  };
  const print = (all: readonly (typeof units)[number][]) => {
    const query = `language=${language}&size=${size}`;
    const note = { name: 'Delivery note', path: `/orders/${orderId}/delivery-note.pdf` };
    const ofUnits = all.map(({ serial, visitId }) => ({
      name: serial,
      path: `/visits/${visitId ?? ''}/papers.pdf?${query}`,
    }));
    return bind('Papers', [note, ...ofUnits], (parts) => Math.max(0, parts - 1), all);
  };
  const printLabels = () => {
    const { perSheet } = labelSheet(size);
    const sheets = Array.from({ length: Math.ceil(sealed.length / perSheet) }, (_, i) => ({
      name: `Sheet ${i + 1}`,
      path: `/orders/${orderId}/labels.pdf?size=${size}&sheet=${i + 1}`,
    }));
    return bind('Labels', sheets, (parts) => Math.min(sealed.length, parts * perSheet), sealed);
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
              {standing.done} of {standing.of} units drawn; now: {standing.drawing}
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
