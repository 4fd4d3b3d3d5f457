import { createHash } from 'node:crypto';
import {
  foldHandover,
  leftCodes,
  leftProofs,
  leftWorstKmh,
  projectVisit,
  withPoint,
  type Evidence,
  type VisitState,
} from '@decurio/core';
import type { EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Photos, type SealHeadRow, type UnitRow, type VisitRow } from '../store/entities.js';
import { storedColumn } from '../store/handovers.js';
import { namedDocument } from '../store/library.js';
import { apartInHandover, personalFindings, personsBy } from '../store/personal.js';
import { markHash } from '../store/seal-heads.js';
import { visitColumns } from '../store/visit-columns.js';
import { keptOfVisits, type KeptOfVisit } from './kept-of-visits.js';
import { readStored } from './stored-visit.js';

export interface VisitCheck {
  readonly visit: VisitRow;
  readonly entries: number;
  readonly photographs: number;
  /** Everything that is not as it was sealed, in sentences; empty where all holds. */
  readonly findings: readonly string[];
}

/**
 * Recomputes a visit from its stored rows and holds everything that is kept of it against that: the chain, what stands
 * beside each entry, what lists and the ledger show, its unit, its photographs, and the marks of how far it had come.
 * @returns null where there is no such visit
 */
export async function verifyVisit(manager: EntityManager, visitId: string): Promise<VisitCheck | null> {
  const [check] = await verifyVisits(manager, [visitId]);
  return check ?? null;
}

/** The same for those of some visits that there are, by id. */
export async function verifyVisits(manager: EntityManager, ids: readonly string[]): Promise<VisitCheck[]> {
  const checks: VisitCheck[] = [];
  for (const kept of await keptOfVisits(manager, ids)) checks.push(await checkKept(manager, kept));
  return checks;
}

async function checkKept(manager: EntityManager, kept: KeptOfVisit): Promise<VisitCheck> {
  const { visit, handover, marks } = kept;
  const { evidence, state, findings } = readStored(kept);
  const photographs = [
    ...evidence.flatMap((entry) => (entry.kind === 'photographed' ? [entry.data] : [])),
    ...(handover ?? []).flatMap((entry) => (entry.kind === 'labelFixed' && entry.data.photo ? [entry.data.photo] : [])),
  ];
  return {
    visit,
    entries: evidence.length,
    photographs: photographs.length,
    findings: [
      ...(evidence.length === 0 ? ['There is no entry at all.'] : []),
      ...findings,
      ...(state ? visitFindings(visit, evidence, state) : []),
      ...(state ? unitFindings(kept, state) : []),
      ...(state && visit.sealedAt ? await answerFindings(manager, kept, state) : []),
      ...(await photoFindings(manager, visit.id, photographs)),
      ...handoverFindings(kept),
      ...markFindings(visit, evidence, marks),
    ],
  };
}

const TITLES: Readonly<Record<keyof ReturnType<typeof visitColumns>, string>> = {
  serial: 'Serial',
  typeName: 'Type',
  orderNumber: 'Order',
  customer: 'Customer',
  mapId: 'Display map',
  mapVersion: 'Version of the display map',
  lastSeq: 'Number of entries',
  headHash: 'Seal',
  openedAt: 'When it was begun',
  sealedAt: 'When it was sealed',
  sealedBy: 'Who sealed it',
};

function visitFindings(visit: VisitRow, evidence: readonly Evidence[], state: VisitState): readonly string[] {
  const sealed = visitColumns(evidence, state);
  const [first] = evidence;
  // Releases that did not note when an entry arrived wrote some of these once, at the opening.
  const isOld = first?.receivedAt === undefined;
  const atOpening: Partial<Record<keyof typeof sealed, unknown>> =
    isOld && first?.kind === 'opened' ? { customer: first.data.order.customer, openedAt: visit.openedAt } : {};
  return (Object.keys(sealed) as (keyof typeof sealed)[])
    .filter((key) => !isSame(visit[key], sealed[key]) && !(key in atOpening && isSame(visit[key], atOpening[key])))
    .map((key) =>
      withPoint(`${TITLES[key]}: the ledger shows ${wordsOf(visit[key])}, the entries say ${wordsOf(sealed[key])}`),
    );
}

const isSame = (a: unknown, b: unknown): boolean =>
  a instanceof Date && b instanceof Date ? a.getTime() === b.getTime() : a === b;
const wordsOf = (value: unknown): string =>
  value instanceof Date ? value.toISOString() : value === null ? 'none' : String(value);

/** A unit shows the visit it is in; one that came back to the line, or was begun anew, shows that instead. */
function unitFindings({ visit, unit }: KeptOfVisit, state: VisitState): readonly string[] {
  if (!unit) return ['The unit of this visit is gone.'];
  if (unit.serial !== state.opened.serial)
    return [`The unit bears another serial (${unit.serial}) than was sealed (${state.opened.serial}).`];
  if (unit.visitId !== visit.id)
    return unit.lastVisitId === visit.id || unit.visitId !== null ? [] : ['The unit does not know of this visit.'];
  const now = projectVisit(state);
  const left = now.status === 'sealed' || now.status === 'withdrawn';
  const shown: Partial<UnitRow> = {
    ...now,
    openSerial: left ? null : unit.serial,
    surprises: state.surprises.length,
    mapId: state.opened.versions.map.id,
  };
  return (Object.keys(shown) as (keyof UnitRow)[])
    .filter((key) => unit[key] !== shown[key])
    .map((key) =>
      withPoint(`${UNIT_TITLES[key] ?? key}: Line shows ${wordsOf(unit[key])}, the entries say ${wordsOf(shown[key])}`),
    );
}

const UNIT_TITLES: Partial<Record<keyof UnitRow, string>> = {
  status: 'Status of its unit',
  step: 'Step of its unit',
  ladder: 'Ladder of its unit',
  heldReason: 'Why it is held',
  heldWords: 'Why it is held, in words',
  worker: 'Who works on it',
  station: 'Where it stands',
  openSerial: 'Open serial',
  mapId: 'Display map of its unit',
  surprises: 'Number of surprises',
  odd: 'Why it looks odd',
};

/** What was handed over follows from the seal, entry by entry, and the unit says who has it. */
function handoverFindings({ visit, unit, handover, personal }: KeptOfVisit): readonly string[] {
  if (visit.sealedAt === null) return [];
  if (handover === null) return ['What was handed over cannot be read any more.'];
  const entries = personsBy(personal, handover);
  const folded = foldHandover(visit.headHash, entries);
  if (!folded.ok) return [folded.problem.message];
  const to = folded.value.out?.to ?? null;
  const apart = personalFindings(personal, apartInHandover(entries));
  if (unit?.visitId !== visit.id) return apart;
  const shown: readonly (readonly [string, string | null, string | null])[] = [
    ['Who has its unit', unit.handedTo, to],
    ['How its unit is put away', unit.stored, storedColumn(folded.value)],
  ];
  return [
    ...apart,
    ...shown
      .filter(([, line, said]) => line !== said)
      .map(([title, line, said]) =>
        withPoint(`${title}: Line shows ${wordsOf(line)}, what was handed over says ${wordsOf(said)}`),
      ),
  ];
}

/** What the ledger is asked by is what the entries fold to; a visit that is still to be taken in has none of it yet. */
async function answerFindings(
  manager: EntityManager,
  { answers }: KeptOfVisit,
  state: VisitState,
): Promise<readonly string[]> {
  if (!answers || answers.packId === null) return [];
  const { id, version } = state.opened.versions.map;
  const named = await namedDocument(manager, 'displayMap', id, version).catch((problem: unknown) => {
    if (problem instanceof HttpProblem) return null;
    throw problem;
  });
  if (named === null) return [`Version ${version} of its display map ${id} is gone.`];
  const map = named.document;
  const { codes, proofs } = answers;
  const sorted = (lines: readonly string[]): string => [...lines].sort().join('\n');
  const asked: readonly (readonly [string, string, string])[] = [
    ['Class', answers.className, state.opened.order.className],
    ['Fastest speed', String(answers.worstKmh), String(leftWorstKmh(state))],
    ['Values let stand', String(answers.accepted), String(Object.keys(state.accepted).length)],
    [
      'Codes',
      sorted(codes.map(({ label, fn, raw, value, word }) => [label, fn, raw, value, word].join(' '))),
      sorted(
        leftCodes(state, map).map((each) => [each.label, each.function, each.raw, each.value, each.word].join(' ')),
      ),
    ],
    [
      'Proofs',
      sorted(proofs.map(({ test, verdict }) => `${test} ${verdict}`)),
      sorted(leftProofs(state).map(({ test, verdict }) => `${test.slice(0, 80)} ${verdict}`)),
    ],
  ];
  return asked
    .filter(([, shown, sealed]) => shown !== sealed)
    .map(([title]) => `${title}: what a question finds of it is not what the entries say.`);
}

async function photoFindings(
  manager: EntityManager,
  visitId: string,
  named: readonly { readonly photoId: string; readonly sha256: string }[],
): Promise<readonly string[]> {
  const findings: string[] = [];
  // One at a time: each may be some megabytes.
  for (const { photoId, sha256 } of named) {
    const photo = await manager.findOneBy(Photos, { id: photoId });
    if (!photo) findings.push(`The photograph ${photoId} is gone.`);
    else if (
      photo.visitId !== visitId ||
      photo.sha256 !== sha256 ||
      createHash('sha256').update(photo.body).digest('hex') !== sha256
    )
      findings.push(`The photograph ${photoId} is not the one that was sealed.`);
  }
  return findings;
}

/** Marks were set when the visit had come so far: every one must still be met by the entry it names. */
function markFindings(
  visit: VisitRow,
  evidence: readonly Evidence[],
  marks: readonly SealHeadRow[],
): readonly string[] {
  const findings = marks.flatMap((mark) => {
    if (markHash({ ...mark, n: Number(mark.n) }) !== mark.rowHash)
      return [`The mark ${mark.n} of how far this visit had come was changed.`];
    const met = evidence.find(({ seq }) => seq === mark.seq);
    if (!met)
      return [
        `Entries are missing: it had come to entry ${mark.seq} on ${mark.at.toISOString()}, and ends at ${evidence.at(-1)?.seq ?? 0}.`,
      ];
    return met.hash === mark.hash
      ? []
      : [`Entry ${mark.seq} is another one than was marked on ${mark.at.toISOString()}: the chain was written anew.`];
  });
  const isMarked = visit.sealedAt === null || marks.some(({ why, seq }) => why !== 'open' && seq === visit.lastSeq);
  return isMarked ? findings : [...findings, 'Nothing marks that it was sealed.'];
}
