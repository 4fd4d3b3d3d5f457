import PDFDocument from 'pdfkit';
import QRCode from 'qrcode';
import {
  findCode,
  foldVisit,
  formatRaw,
  functionTitle,
  judgeReadback,
  mapTitle,
  meaningOf,
  stepsLeftOut,
  trueSpeedSays,
  stepTitle,
  type CodeVerdict,
  type DisplayMap,
  type Evidence,
  type EvidenceData,
  type VisitRecord,
  type VisitState,
  whatStands,
} from '@decurio/core';
import { PAPER_FONTS, type PaperFont } from './fonts.js';
import { fontFor, legible, paperTime } from './paper-text.js';

const INK = '#18211D';
const SOFT = '#5C655F';
const RULE = '#CBC7BA';
const VERDIGRIS = '#17695C';
const MADDER = '#A32E26';
const MARGIN = 48;
const BOTTOM = 790;

type Doc = PDFKit.PDFDocument;

/** The configuration certificate of a sealed visit: A4, PDF, everything it claims taken from the record. */
export async function makeCertificate(record: VisitRecord, map: DisplayMap): Promise<Buffer> {
  const fold = foldVisit(record.evidence);
  if (!fold.ok) throw new Error(`a sealed record does not fold: ${fold.problem.message}`);
  const state = fold.value;
  const doc = new PDFDocument({
    size: 'A4',
    margin: MARGIN,
    bufferPages: true,
    info: {
      Title: `Configuration certificate ${record.serial}`,
      Creator: 'Decurio',
      CreationDate: new Date(record.sealedAt),
    },
  });
  for (const [name, path] of Object.entries(PAPER_FONTS)) doc.registerFont(name, path);
  heading(doc, record, state);
  privateLand(doc, state);
  facts(doc, record, state);
  codes(doc, state, map, lastReadings(record.evidence));
  limits(doc, state);
  signatures(doc, record, state);
  await seal(doc, record);
  footers(doc, record);
  return finish(doc);
}

/** Takes the font of a role that draws this text, and gives the text as it is drawn. */
function inFont(doc: Doc, role: PaperFont, text: string): string {
  doc.font(fontFor(role, text));
  return legible(text);
}

function finish(doc: Doc): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    doc.on('data', (chunk: Buffer) => chunks.push(chunk));
    doc.on('end', () => resolve(Buffer.concat(chunks)));
    doc.on('error', reject);
    doc.end();
  });
}

/** The newest reading of every code over all rounds: what the unit showed when it left. */
function lastReadings(evidence: readonly Evidence[]): Readonly<Record<string, number | null>> {
  const undone = new Set(evidence.flatMap((e) => (e.kind === 'undone' ? [e.data.voids] : [])));
  const readings: Record<string, number | null> = {};
  for (const entry of evidence) {
    if (entry.kind === 'codeRead' && !undone.has(entry.id)) readings[entry.data.label] = entry.data.raw;
  }
  return readings;
}

function room(doc: Doc, height: number): void {
  if (doc.y + height > BOTTOM) doc.addPage();
}

function caption(doc: Doc, text: string): void {
  room(doc, 60);
  doc
    .moveDown(0.9)
    .font('label')
    .fontSize(9)
    .fillColor(SOFT)
    .text(text.toUpperCase(), MARGIN, doc.y, { characterSpacing: 0.6 });
  doc.moveDown(0.3);
}

function heading(doc: Doc, record: VisitRecord, { opened }: VisitState): void {
  for (let i = 0; i < 10; i++) {
    doc.rect(MARGIN + (i % 5) * 6, MARGIN + Math.floor(i / 5) * 10, 4, 8).fill(i === 0 ? '#B4780A' : VERDIGRIS);
  }
  doc
    .font('label')
    .fontSize(11)
    .fillColor(INK)
    .text('DECURIO', MARGIN + 38, MARGIN + 3, { characterSpacing: 1.6 });
  doc
    .font('label')
    .fontSize(24)
    .text('Configuration certificate', MARGIN, MARGIN + 34);
  doc
    .fontSize(18)
    .fillColor(VERDIGRIS)
    .text(inFont(doc, 'codeStrong', record.serial), MARGIN, doc.y + 2);
  doc
    .fontSize(10)
    .fillColor(SOFT)
    .text(inFont(doc, 'text', `${opened.versions.type.name}, for ${opened.order.customer}`), MARGIN, doc.y + 2);
}

/** Loud: a vehicle that never goes on a public road. */
function privateLand(doc: Doc, { opened }: VisitState): void {
  const land = opened.order.privateLand;
  if (!land) return;
  const y = doc.y + 8;
  doc.rect(MARGIN, y, 499, 40).lineWidth(2).strokeColor(MADDER).stroke();
  doc
    .fontSize(14)
    .fillColor(MADDER)
    .text(inFont(doc, 'label', land.label.toUpperCase()), MARGIN + 10, y + 6, { width: 479 });
  doc
    .fontSize(9)
    .fillColor(INK)
    .text(
      inFont(
        doc,
        'text',
        `Until ${land.endsOn}, by written authority of ${land.authorityBy}. Never on a public road, tests included.`,
      ),
      MARGIN + 10,
      y + 24,
      { width: 479 },
    );
  doc.y = y + 46;
}

function facts(doc: Doc, record: VisitRecord, { opened, checkedIn }: VisitState): void {
  const { versions, order } = opened;
  const rows: [string, string][] = [
    ['Order', order.number],
    ['Class', `${order.className} (legal values ${order.classChecked})`],
    ['Type', `${versions.type.name}, version ${versions.type.version} of its description`],
    ['Display', `${mapTitle(versions.map)}, version ${versions.map.version} of its map`],
    [
      'Rules',
      `${versions.rulePack.name} version ${versions.rulePack.version}; house rules "${versions.houseRules.name}" version ${versions.houseRules.version}`,
    ],
    ['Checked in', checkedIn ? checkInLine(checkedIn) : 'no entry'],
    ['Signed off', `${paperTime(record.sealedAt)} by ${record.evidence.at(-1)?.by.name ?? ''}`],
  ];
  doc.moveDown(0.8);
  for (const [name, value] of rows) {
    const y = doc.y;
    doc.font('label').fontSize(9.5).fillColor(SOFT).text(name, MARGIN, y, { width: 80 });
    doc
      .fontSize(9.5)
      .fillColor(INK)
      .text(inFont(doc, 'text', value), MARGIN + 84, y, { width: 415 });
    doc.y += 2;
  }
}

function checkInLine(data: EvidenceData['checkedIn']): string {
  return [
    `pack ${data.packV.toFixed(1)} V`,
    data.odometerKm === null ? 'odometer not read' : `odometer ${data.odometerKm} km`,
    ...(data.tyreBar === null ? [] : [`tyre ${data.tyreBar} bar`]),
    data.cablesFree ? 'cables free' : 'cables not free',
    data.clampSound ? 'display clamp sound' : 'display clamp not sound',
    ...(data.accessories === '' ? [] : [`with ${data.accessories}`]),
    ...(data.damage === '' ? [] : [`damage: ${data.damage}`]),
  ].join('; ');
}

const COLUMNS = [
  { title: 'Code', x: 0, width: 44 },
  { title: 'Sets', x: 46, width: 98 },
  { title: 'Must show', x: 146, width: 52 },
  { title: 'Read back', x: 200, width: 52 },
  { title: 'Which means', x: 254, width: 98 },
  { title: 'Why', x: 354, width: 145 },
] as const;

function codes(doc: Doc, state: VisitState, map: DisplayMap, readings: Readonly<Record<string, number | null>>): void {
  const verdicts = judgeReadback(
    state.opened.setup,
    Object.fromEntries(Object.entries(readings).map(([label, raw]) => [label, [raw, raw]])),
  );
  const agree = verdicts.filter((v) => v.verdict === 'agrees').length;
  const recorded = verdicts.filter((v) => v.verdict === 'asFound').length;
  caption(doc, `Codes read back after restart: ${agree} agree${recorded > 0 ? `, ${recorded} recorded as found` : ''}`);
  tableHead(doc);
  for (const verdict of verdicts) codeRow(doc, verdict, state, map);
}

function tableHead(doc: Doc): void {
  const y = doc.y;
  doc.font('label').fontSize(8.5).fillColor(SOFT);
  for (const { title, x, width } of COLUMNS) doc.text(title, MARGIN + x, y, { width });
  line(doc, doc.y + 1);
}

function line(doc: Doc, y: number): void {
  doc
    .moveTo(MARGIN, y)
    .lineTo(MARGIN + 499, y)
    .lineWidth(0.5)
    .strokeColor(RULE)
    .stroke();
  doc.y = y + 3;
}

function codeRow(doc: Doc, { label, target, readings }: CodeVerdict, state: VisitState, map: DisplayMap): void {
  if (doc.y + 26 > BOTTOM) {
    doc.addPage();
    tableHead(doc);
  }
  const code = findCode(map, label);
  const wanted = state.opened.setup.targets.find((t) => t.label === label);
  const raw = readings.at(-1);
  const show = (value: number | null | undefined) =>
    value === null || value === undefined ? '–' : code ? formatRaw(code, value) : String(value);
  const cells: [keyof typeof PAPER_FONTS, string][] = [
    ['codeStrong', label],
    ['text', wanted ? functionTitle(wanted.function) : ''],
    ['code', target === null ? 'as found' : show(target)],
    ['codeStrong', raw === null ? 'not shown' : show(raw)],
    ['text', code && raw !== null && raw !== undefined ? meaningOf(code, raw) : ''],
    ['text', wanted?.because ?? ''],
  ];
  const y = doc.y;
  let low = y;
  cells.forEach(([font, text], i) => {
    const column = COLUMNS[i];
    if (!column) return;
    doc
      .fontSize(8.5)
      .fillColor(INK)
      .text(inFont(doc, font, text), MARGIN + column.x, y, { width: column.width });
    low = Math.max(low, doc.y);
  });
  line(doc, low + 1);
}

function limits(doc: Doc, state: VisitState): void {
  const { opened } = state;
  const left = stepsLeftOut(state);
  const stands = whatStands(state);
  if (stands.length > 0) {
    caption(doc, 'What was done beside the codes');
    sentencesOf(doc, stands);
  }
  caption(doc, 'What this paper does not say');
  const sentences = [
    trueSpeedSays(state),
    ...(left.length > 0 ? [`Left out of this visit: ${left.join(', ')}.`] : []),
    `Legal values are starting points that a shop checks with its own authority. For this class: ${opened.order.classChecked}.`,
    ...opened.setup.findings.map(({ says, decided }) =>
      decided ? `${says} Decided by ${decided.by} on ${decided.on}: ${decided.words}` : says,
    ),
  ];
  sentencesOf(doc, sentences);
}

function sentencesOf(doc: Doc, sentences: readonly string[]): void {
  for (const sentence of sentences) {
    room(doc, 26);
    doc
      .fontSize(9)
      .fillColor(INK)
      .text(inFont(doc, 'text', sentence), MARGIN, doc.y, { width: 499 });
    doc.y += 2;
  }
}

function signatures(doc: Doc, record: VisitRecord, state: VisitState): void {
  caption(doc, 'Who did what');
  const people = state.done.map(({ step, at, by }) => `${stepTitle(step)} ${by.name}, ${paperTime(at)}`);
  doc
    .fontSize(9)
    .fillColor(INK)
    .text(inFont(doc, 'text', people.join('   ·   ')), MARGIN, doc.y, { width: 499 });
  const last = record.evidence.at(-1);
  if (last?.kind === 'signedOff' && last.data.words !== '') {
    doc.y += 2;
    doc.text(inFont(doc, 'text', `Signed off with the words: ${last.data.words}`), MARGIN, doc.y, { width: 499 });
  }
}

async function seal(doc: Doc, record: VisitRecord): Promise<void> {
  room(doc, 120);
  caption(doc, `Seal over ${record.evidence.length} entries`);
  const y = doc.y;
  const qr = await QRCode.toBuffer(`decurio-seal:${record.visitId}:${record.seal}`, {
    margin: 0,
    width: 300,
    errorCorrectionLevel: 'M',
  });
  doc.image(qr, MARGIN, y, { width: 72 });
  doc
    .font('code')
    .fontSize(9)
    .fillColor(INK)
    .text((record.seal.match(/.{8}/g) ?? []).slice(0, 4).join(' '), MARGIN + 86, y + 4);
  doc.text((record.seal.match(/.{8}/g) ?? []).slice(4).join(' '), MARGIN + 86, doc.y + 1);
  doc
    .font('text')
    .fontSize(9)
    .fillColor(SOFT)
    .text(
      `Visit ${record.visitId}. The seal is the SHA-256 hash in which the chain of all entries ends; the ledger, or the exported record alone, shows whether one of them was changed.`,
      MARGIN + 86,
      doc.y + 4,
      { width: 410 },
    );
}

function footers(doc: Doc, record: VisitRecord): void {
  const { start, count } = doc.bufferedPageRange();
  for (let page = start; page < start + count; page++) {
    doc.switchToPage(page);
    doc.page.margins.bottom = 0;
    doc
      .fontSize(8)
      .fillColor(SOFT)
      .text(
        inFont(doc, 'text', `${record.serial} · seal ${record.seal.slice(0, 16)} · page ${page + 1} of ${count}`),
        MARGIN,
        812,
        { width: 499, align: 'right', lineBreak: false },
      );
  }
}
