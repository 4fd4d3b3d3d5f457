import PDFDocument from 'pdfkit';
import QRCode from 'qrcode';
import { openedFont, PAPER_FONTS, type PaperFont } from './fonts.js';
import { fontFor, legible } from './paper-text.js';

/** What every paper is drawn with. */
export const INKS = {
  ink: '#18211D',
  soft: '#5C655F',
  rule: '#CBC7BA',
  verdigris: '#17695C',
  ochre: '#B4780A',
  madder: '#A32E26',
} as const;

/** Width and height in points. */
export const A4 = [595.28, 841.89] as const;

/** A4 in points: the margin, the width between margins, and where a page ends. */
export const PAGE = { margin: 42, width: 511, bottom: 804 } as const;

export type Paper = PDFKit.PDFDocument;

/** An empty paper with the fonts of the house. */
export function newPaper({
  title,
  madeAt,
  size,
}: {
  readonly title: string;
  readonly madeAt: string;
  /** Width and height in points; A4 where left out. Such a page has no margin. */
  readonly size?: readonly [number, number];
}): Paper {
  const paper = new PDFDocument({
    size: size ? [...size] : 'A4',
    margin: size ? 0 : PAGE.margin,
    bufferPages: true,
    info: { Title: title, Creator: 'Decurio', CreationDate: new Date(madeAt) },
  });
  for (const name of Object.keys(PAPER_FONTS) as PaperFont[]) paper.registerFont(name, openedFont(name));
  return paper;
}

/** Takes the font of a role that draws this text, and gives the text as it is drawn. */
export function inFont(paper: Paper, role: PaperFont, text: string): string {
  paper.font(fontFor(role, text));
  return legible(text);
}

/** The whole paper, once nothing more is drawn. */
export function finish(paper: Paper): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    paper.on('data', (chunk: Buffer) => chunks.push(chunk));
    paper.on('end', () => resolve(Buffer.concat(chunks)));
    paper.on('error', reject);
    paper.end();
  });
}

/** Begins another page where less than `height` is left on this one. */
export function room(paper: Paper, height: number): void {
  if (paper.y + height > PAGE.bottom) paper.addPage();
}

/** The house's sign, what paper it is, and which unit it is of. */
export function masthead(
  paper: Paper,
  {
    title,
    serial,
    says,
    beside = 0,
  }: {
    readonly title: string;
    readonly serial: string;
    readonly says: string;
    /** Points kept free at the right. */
    readonly beside?: number;
  },
): void {
  const { margin } = PAGE;
  const within = { width: PAGE.width - beside };
  for (let i = 0; i < 10; i++)
    paper.rect(margin + (i % 5) * 6, margin + Math.floor(i / 5) * 10, 4, 8).fill(i === 0 ? INKS.ochre : INKS.verdigris);
  paper
    .font('label')
    .fontSize(11)
    .fillColor(INKS.ink)
    .text('DECURIO', margin + 38, margin + 3, { characterSpacing: 1.6 });
  paper
    .font('label')
    .fontSize(22)
    .text(title, margin, margin + 26, within);
  paper
    .fontSize(18)
    .fillColor(INKS.verdigris)
    .text(inFont(paper, 'codeStrong', serial), margin, paper.y + 2, within);
  paper
    .fontSize(10)
    .fillColor(INKS.soft)
    .text(inFont(paper, 'text', says), margin, paper.y + 2, within);
}

/** The head of a part. */
export function caption(paper: Paper, text: string): void {
  room(paper, 46);
  paper
    .moveDown(0.55)
    .font('label')
    .fontSize(9)
    .fillColor(INKS.soft)
    .text(text.toUpperCase(), PAGE.margin, paper.y, { characterSpacing: 0.6 });
  paper.moveDown(0.2);
}

/** A thin line across, and on below it. */
export function across(paper: Paper, y: number): void {
  paper
    .moveTo(PAGE.margin, y)
    .lineTo(PAGE.margin + PAGE.width, y)
    .lineWidth(0.5)
    .strokeColor(INKS.rule)
    .stroke();
  paper.y = y + 1.5;
}

/** Loud, in a frame: what nobody may overlook. */
export function warning(paper: Paper, title: string, says: string): void {
  const y = paper.y + 8;
  const within = { width: PAGE.width - 20 };
  paper.rect(PAGE.margin, y, PAGE.width, 40).lineWidth(2).strokeColor(INKS.madder).stroke();
  paper
    .fontSize(14)
    .fillColor(INKS.madder)
    .text(inFont(paper, 'label', title.toUpperCase()), PAGE.margin + 10, y + 6, within);
  paper
    .fontSize(9)
    .fillColor(INKS.ink)
    .text(inFont(paper, 'text', says), PAGE.margin + 10, y + 24, within);
  paper.y = y + 46;
}

/** A code square of a text, its upper left corner at a point of the page. */
export function codeSquare(paper: Paper, text: string, x: number, y: number, width: number): void {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
  const each = width / modules.size;
  for (let row = 0; row < modules.size; row++)
    for (let from = 0; from < modules.size; from++) {
      if (!modules.get(row, from)) continue;
      let to = from;
      while (to + 1 < modules.size && modules.get(row, to + 1)) to++;
      paper.rect(x + from * each, y + row * each, (to - from + 1) * each, each * 1.02);
      from = to;
    }
  paper.fill(INKS.ink);
}

/** Names at the left, what they are at the right. */
export function factRows(paper: Paper, rows: readonly (readonly [name: string, value: string])[]): void {
  paper.moveDown(0.5);
  for (const [name, value] of rows) {
    const y = paper.y;
    paper.font('label').fontSize(9).fillColor(INKS.soft).text(name, PAGE.margin, y, { width: 80 });
    paper
      .fontSize(9)
      .fillColor(INKS.ink)
      .text(inFont(paper, 'text', value), PAGE.margin + 84, y, { width: PAGE.width - 84 });
    paper.y += 2;
  }
}

/** Sentences, one under another. */
export function sentencesOf(paper: Paper, sentences: readonly string[]): void {
  for (const sentence of sentences) {
    room(paper, 26);
    paper
      .fontSize(8.2)
      .fillColor(INKS.ink)
      .text(inFont(paper, 'text', sentence), PAGE.margin, paper.y, { width: PAGE.width });
    paper.y += 2;
  }
}

/** A column of a table: where it begins after the margin, and how wide it is. */
export interface Column {
  readonly title: string;
  readonly role: PaperFont;
  readonly x: number;
  readonly width: number;
}

/** A table whose head stands on every page that it runs over. */
export function table(paper: Paper, columns: readonly Column[], rows: readonly (readonly string[])[]): void {
  const head = (): void => {
    const y = paper.y;
    paper.font('label').fontSize(8.2).fillColor(INKS.soft);
    for (const { title, x, width } of columns) paper.text(title, PAGE.margin + x, y, { width });
    across(paper, paper.y + 1);
  };
  head();
  for (const row of rows) {
    if (paper.y + 26 > PAGE.bottom) {
      paper.addPage();
      head();
    }
    const y = paper.y;
    let low = y;
    for (const [i, { role, x, width }] of columns.entries()) {
      paper
        .fontSize(8.2)
        .fillColor(INKS.ink)
        .text(inFont(paper, role, row[i] ?? ''), PAGE.margin + x, y, { width });
      low = Math.max(low, paper.y);
    }
    across(paper, low + 0.5);
  }
}

/** The page that a paper has come to, counted from 0. */
export const lastPage = (paper: Paper): number => {
  const { start, count } = paper.bufferedPageRange();
  return start + count - 1;
};

/** Whether nothing stands on the page yet. */
export const isFresh = (paper: Paper): boolean => lastPage(paper) === 0 && paper.y <= PAGE.margin;

/** What a page is of, at the foot of each from one on. */
export function footers(paper: Paper, says: string, from = 0): void {
  const last = lastPage(paper);
  const count = last - from + 1;
  for (let page = from; page <= last; page++) {
    paper.switchToPage(page);
    paper.page.margins.bottom = 0;
    paper
      .fontSize(8)
      .fillColor(INKS.soft)
      .text(inFont(paper, 'text', `${says} · page ${page - from + 1} of ${count}`), PAGE.margin, 812, {
        width: PAGE.width,
        align: 'right',
        lineBreak: false,
      });
  }
}
