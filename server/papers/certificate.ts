import {
  askedBeside,
  dayIn,
  foldVisit,
  mapTitle,
  stepsLeftOut,
  stepTitle,
  timeIn,
  trueSpeedSays,
  visitRemarks,
  type DisplayMap,
  type EvidenceData,
  parseCheckpoint,
  type VisitRecord,
  type VisitState,
} from '@decurio/core';
import { codeCells, codesCaption } from './certificate-codes.js';
import { notProvedSays, proofTable, speedPlot } from './certificate-proofs.js';
import {
  caption,
  codeSquare,
  factRows,
  finish,
  footers,
  inFont,
  INKS,
  lastPage,
  masthead,
  newPaper,
  PAGE,
  sentencesOf,
  table,
  warning,
  type Column,
  type Paper,
} from './kit.js';
import { paperTime } from './paper-text.js';

/** The configuration certificate of a visit: A4, PDF, everything it claims taken from the record; times in a zone. */
export async function makeCertificate(record: VisitRecord, map: DisplayMap, zone: string): Promise<Buffer> {
  const paper = newPaper({ title: `Configuration certificate ${record.serial}`, madeAt: record.sealedAt });
  drawCertificate(paper, record, map, zone);
  return finish(paper);
}

/** The same, on the page that a paper has come to and as many more as it takes; with its own footers. */
export function drawCertificate(paper: Paper, record: VisitRecord, map: DisplayMap, zone: string): void {
  const fold = foldVisit(record.evidence);
  if (!fold.ok) throw new Error(`a sealed record does not fold: ${fold.problem.message}`);
  const state = fold.value;
  const { versions, order } = state.opened;
  const isSealed = state.step === null;
  const from = lastPage(paper);
  masthead(paper, {
    title: 'Configuration certificate',
    serial: record.serial,
    says: `${versions.type.name}, for ${order.customer}`,
    beside: SQUARE + 14,
  });
  if (isSealed) sealSquare(paper, record);
  privateLand(paper, state);
  facts(paper, record, state, zone);
  caption(paper, codesCaption(state));
  table(
    paper,
    COLUMNS,
    state.verdicts.map((verdict) => codeCells(verdict, state, map)),
  );
  speedPlot(paper, state);
  proofTable(paper, state);
  limits(paper, state);
  signatures(paper, record, state, zone);
  if (isSealed) seal(paper, record);
  footers(
    paper,
    isSealed ? `${record.serial} · seal ${record.seal.slice(0, 16)}` : `${record.serial} · not signed off`,
    from,
  );
}

/** Loud: a vehicle that never goes on a public road. */
function privateLand(paper: Paper, { opened }: VisitState): void {
  const land = opened.order.privateLand;
  if (!land) return;
  warning(
    paper,
    land.label,
    `Until ${land.endsOn}, by written authority of ${land.authorityBy}. Never on a public road, tests included.`,
  );
}

function facts(paper: Paper, record: VisitRecord, state: VisitState, zone: string): void {
  const { opened, checkedIn } = state;
  const { versions, order } = opened;
  factRows(paper, [
    ['Order', order.number],
    ['Class', `${order.className} (legal values ${order.classChecked})`],
    ['Type', `${versions.type.name}, version ${versions.type.version} of its description`],
    ['Display', `${mapTitle(versions.map)}, version ${versions.map.version} of its map`],
    [
      'Rules',
      `${versions.rulePack.name} version ${versions.rulePack.version}; house rules "${versions.houseRules.name}" version ${versions.houseRules.version}`,
    ],
    ...(opened.follows?.fromPrivateLand
      ? [
          [
            'Came back',
            `from private land (${opened.follows.fromPrivateLand.label}, until ${opened.follows.fromPrivateLand.endsOn}): read and proved in full`,
          ] as const,
        ]
      : []),
    ['Checked in', checkedIn ? checkInLine(checkedIn) : 'no entry'],
    ['Signed off', signedLine(record, state, zone)],
  ]);
}

function signedLine(record: VisitRecord, { step, countersigned }: VisitState, zone: string): string {
  if (step !== null) return 'not signed off';
  const beside = countersigned ? `, with ${countersigned.by.name} beside` : '';
  return `${paperTime(record.sealedAt, zone)} by ${record.evidence.at(-1)?.by.name ?? ''}${beside}`;
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

/** Edge of the code square, points: read by a phone at arm's length. */
const SQUARE = 78;

const COLUMNS: readonly Column[] = [
  { title: 'Code', role: 'codeStrong', x: 0, width: 40 },
  { title: 'Sets', role: 'text', x: 42, width: 86 },
  { title: 'Must show', role: 'code', x: 130, width: 44 },
  { title: 'Read back', role: 'codeStrong', x: 176, width: 44 },
  { title: 'Which means', role: 'text', x: 222, width: 88 },
  { title: 'Why', role: 'text', x: 312, width: 199 },
];

function limits(paper: Paper, state: VisitState): void {
  const { opened } = state;
  const left = stepsLeftOut(state);
  const stands = visitRemarks(state);
  if (stands.length > 0) {
    caption(paper, 'What was done beside the codes');
    sentencesOf(paper, stands);
  }
  const beside = askedBeside(state);
  if (beside.length > 0) {
    caption(paper, 'For whoever rides it');
    sentencesOf(paper, [beside.join(' ')]);
  }
  caption(paper, 'What this paper does not say');
  const sentences = [
    trueSpeedSays(state),
    ...(left.length > 0 ? [`Left out of this visit: ${left.join(', ')}.`] : []),
    ...notProvedSays(state),
    `Legal values are starting points that a shop checks with its own authority. For this class: ${opened.order.classChecked}.`,
    ...opened.setup.findings.map(({ says, decided }) =>
      decided ? `${says} Decided by ${decided.by} on ${decided.on}: ${decided.words}` : says,
    ),
  ];
  sentencesOf(paper, sentences);
}

function signatures(paper: Paper, record: VisitRecord, state: VisitState, zone: string): void {
  caption(paper, 'Who did what');
  // One date for those of one day.
  const people = state.done.map(({ step, at, by }, i) => {
    const before = state.done[i - 1];
    const isSameDay = before !== undefined && dayIn(zone, Date.parse(before.at)) === dayIn(zone, Date.parse(at));
    return `${stepTitle(step)} ${by.name}, ${isSameDay ? timeIn(zone, Date.parse(at)).slice(11) : paperTime(at, zone)}`;
  });
  paper
    .fontSize(8.2)
    .fillColor(INKS.ink)
    .text(inFont(paper, 'text', people.join('   ·   ')), PAGE.margin, paper.y, { width: PAGE.width });
  const last = record.evidence.at(-1);
  if (last?.kind === 'signedOff' && last.data.words !== '') {
    paper.y += 2;
    paper.text(inFont(paper, 'text', `Signed off with the words: ${last.data.words}`), PAGE.margin, paper.y, {
      width: PAGE.width,
    });
  }
}

/** The seal as a code square beside the head: it takes no room from what is read. */
function sealSquare(paper: Paper, record: VisitRecord): void {
  const x = PAGE.margin + PAGE.width - SQUARE;
  const size = record.inclusion ? parseCheckpoint(record.inclusion.checkpoint)?.size : undefined;
  const leaf = record.inclusion && size !== undefined ? `:${record.inclusion.index}:${size}` : '';
  codeSquare(paper, `decurio-seal:${record.visitId}:${record.seal}${leaf}`, x, PAGE.margin, SQUARE);
}

/** Where the seal stands in the ledger's tree: by this the paper alone shows a record that has since gone. */
function checkpointLines({ inclusion }: VisitRecord): readonly string[] {
  const checkpoint = inclusion ? parseCheckpoint(inclusion.checkpoint) : null;
  if (!inclusion || !checkpoint) return [];
  return [
    `Leaf ${inclusion.index + 1} of the ${checkpoint.size} under the checkpoint of ${checkpoint.origin}, root ${checkpoint.root}.`,
  ];
}

function seal(paper: Paper, record: VisitRecord): void {
  caption(paper, `Seal over ${record.evidence.length} entries`);
  paper
    .font('code')
    .fontSize(8)
    .fillColor(INKS.ink)
    .text((record.seal.match(/.{8}/g) ?? []).join(' '), PAGE.margin, paper.y, { width: PAGE.width });
  sentencesOf(paper, [
    `SHA-256 hash in which the chain of all entries of visit ${record.visitId} ends: the ledger, or the exported record alone, shows whether one was changed.`,
    ...checkpointLines(record),
  ]);
}
