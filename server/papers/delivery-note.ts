import { caption, factRows, finish, footers, masthead, newPaper, sentencesOf, table, type Column } from './kit.js';

/** What goes out with an order. No digits of a PIN. */
export interface DeliveryNote {
  readonly orderNumber: string;
  readonly customer: string;
  readonly place: string;
  readonly className: string;
  readonly classChecked: string;
  readonly due: string;
  readonly madeAt: string;
  readonly units: readonly {
    readonly serial: string;
    readonly typeName: string;
    readonly stands: string;
    readonly seal: string;
  }[];
  readonly pinPolicy: string;
  readonly papers: readonly string[];
  /** Some of it is not signed off. */
  readonly isDraft: boolean;
}

const COLUMNS: readonly Column[] = [
  { title: 'Serial', role: 'codeStrong', x: 0, width: 110 },
  { title: 'Type', role: 'text', x: 114, width: 110 },
  { title: 'Stands', role: 'text', x: 228, width: 150 },
  { title: 'Seal', role: 'code', x: 382, width: 129 },
];

export async function makeDeliveryNote(note: DeliveryNote): Promise<Buffer> {
  const paper = newPaper({ title: `Delivery note ${note.orderNumber}`, madeAt: note.madeAt });
  masthead(paper, { title: 'Delivery note', serial: note.orderNumber, says: `${note.customer}, ${note.place}` });
  factRows(paper, [
    ['Class', `${note.className} (legal values ${note.classChecked})`],
    ['Due', note.due],
    ['Units', String(note.units.length)],
    ['PIN', note.pinPolicy],
  ]);
  caption(paper, `${note.units.length} units`);
  table(
    paper,
    COLUMNS,
    note.units.map(({ serial, typeName, stands, seal }) => [serial, typeName, stands, seal]),
  );
  caption(paper, 'Enclosed');
  sentencesOf(paper, note.papers);
  if (note.isDraft) markDraft(paper);
  footers(paper, `${note.orderNumber} · ${note.customer}`);
  return finish(paper);
}

/** Across every page: nobody takes it for the paper it will be. */
export function markDraft(paper: PDFKit.PDFDocument, from = 0): void {
  const { start, count } = paper.bufferedPageRange();
  for (let page = Math.max(start, from); page < start + count; page++) {
    paper.switchToPage(page);
    const { width, height } = paper.page;
    paper.save().rotate(-35, { origin: [width / 2, height / 2] });
    const size = Math.min(150, width / 3.4);
    paper.font('label').fontSize(size).fillColor('#A32E26', 0.16);
    paper.text('DRAFT', 0, height / 2 - size / 2, { width, align: 'center', lineBreak: false });
    paper.restore().fillColor('#18211D', 1);
  }
}
