import { foldHandover, parseCheckpoint, type HandoverEntry } from '@decurio/core';
import type { ArchiveReport } from '@decurio/contract';
import type { EntityManager } from 'typeorm';
import type { Readers } from '../reading/readers.js';
import type { RecordRead } from '../reading/worker.js';
import { Visits } from '../store/entities.js';
import type { ArchiveFile } from './manifest.js';
import { ArchiveFault, type OpenArchive } from './open-archive.js';

/** A record that holds, and what the house knows of its visit. */
export interface ForeignRecord {
  readonly file: ArchiveFile;
  readonly visitId: string;
  readonly read: Extract<RecordRead, { readonly ok: true }>;
  readonly handover: ArchiveFile | null;
  /** `ours`: it stands in this house's own ledger. `known`: it was taken in before. */
  readonly standing: 'new' | 'known' | 'ours';
}

export interface ArchiveChecked {
  readonly report: ArchiveReport;
  readonly records: readonly ForeignRecord[];
}

const MOST_FINDINGS = 60;

/**
 * Checks everything of an archive before any of it is believed: that each file is what the list says, that every record
 * holds by itself with its photographs and what was handed over, that no visit is there twice, and that none of them is
 * known here under another seal.
 * @param signal ends it between two files
 */
export async function checkArchive(
  manager: EntityManager,
  readers: Pick<Readers, 'record'>,
  archive: OpenArchive,
  signal?: AbortSignal,
): Promise<ArchiveChecked> {
  const { manifest, id } = archive;
  const findings: string[] = [];
  const find = (says: string): void => {
    if (findings.length < MOST_FINDINGS) findings.push(says);
  };
  const records = new Map<string, ForeignRecord>();
  const of = (kind: ArchiveFile['kind']) => manifest.files.filter((file) => file.kind === kind);
  const photographs = new Map(of('photo').map((file) => [file.name.replace(/^.*\/|\.[^.]*$/g, ''), file]));
  for (const file of manifest.files) {
    signal?.throwIfAborted();
    const body = await archive.read(file).catch((error: unknown) => {
      if (!(error instanceof ArchiveFault)) throw error;
      find(error.message);
      return null;
    });
    if (body === null) continue;
    if (file.kind === 'checkpoint' && parseCheckpoint(body.toString('utf8')) === null)
      find(`${file.name} is no checkpoint.`);
    if (file.kind === 'document' && asObject(body) === null) find(`${file.name} is no document.`);
    if (file.kind !== 'record') continue;
    const read = await readers.record(body, signal);
    if (!read.ok) find(`${file.name}: ${read.says}`);
    else if (!isKeepable(read)) find(`${file.name}: its visit, display or date is none that could be kept.`);
    else if (records.has(read.visitId)) find(`${file.name}: the visit of ${read.serial} is in it twice.`);
    else {
      for (const { photoId, sha256 } of read.photographs)
        if (photographs.get(photoId)?.sha256 !== sha256)
          find(`${read.serial}: the photograph ${photoId} is missing, or another.`);
      const standing = await standingOf(manager, read);
      if (standing === 'otherwise')
        find(`${read.serial}: this house knows that visit, and it ends in another seal. Neither is changed.`);
      else {
        const handover = of('handover').find(({ visitId }) => visitId === read.visitId) ?? null;
        records.set(read.visitId, { file, visitId: read.visitId, read, handover, standing });
      }
    }
  }
  for (const { handover, read } of records.values())
    if (handover) await checkHandover(archive, { file: handover, photographs }, read, find);
  if (records.size === 0 && findings.length === 0) find('It holds no record.');
  const count = (standing: ForeignRecord['standing']) =>
    [...records.values()].filter((each) => each.standing === standing).length;
  return {
    report: {
      id,
      origin: manifest.origin,
      name: manifest.of.name,
      madeAt: manifest.madeAt,
      holds: findings.length === 0,
      findings,
      records: records.size,
      fresh: count('new'),
      known: count('known'),
      ours: count('ours'),
      files: manifest.files.length,
      isTaken: false,
    },
    records: [...records.values()],
  };
}

/** Ids, version and time are of the form that every house gives them. */
const isKeepable = ({ visitId, cover: { map, sealedAt } }: Extract<RecordRead, { readonly ok: true }>): boolean =>
  /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(visitId) &&
  /^[a-z0-9-]{1,60}$/.test(map.id) &&
  Number.isSafeInteger(map.version) &&
  /^\d{4}-\d{2}-\d{2}T[\d:.]+Z$/.test(sealedAt) &&
  Number.isFinite(Date.parse(sealedAt));

async function standingOf(
  manager: EntityManager,
  { visitId, seal }: Extract<RecordRead, { readonly ok: true }>,
): Promise<ForeignRecord['standing'] | 'otherwise'> {
  const own = await manager.findOneBy(Visits, { id: visitId });
  if (own) return own.headHash === seal ? 'ours' : 'otherwise';
  const [known] = await manager.query<{ seal: string }[]>('SELECT seal FROM elsewhere_record WHERE visitId = ?', [
    visitId,
  ]);
  if (!known) return 'new';
  return known.seal === seal ? 'known' : 'otherwise';
}

async function checkHandover(
  archive: OpenArchive,
  { file, photographs }: { readonly file: ArchiveFile; readonly photographs: ReadonlyMap<string, ArchiveFile> },
  { seal, serial }: Extract<RecordRead, { readonly ok: true }>,
  find: (says: string) => void,
): Promise<void> {
  const body = await archive.read(file).catch(() => null);
  const data = body === null ? null : asObject(body);
  if (!data || !Array.isArray(data['entries'])) return find(`${file.name} cannot be read.`);
  try {
    const folded = foldHandover(seal, data['entries'] as readonly HandoverEntry[]);
    if (!folded.ok) return find(`${serial}: ${folded.problem.message}`);
    const photo = folded.value.label?.photo;
    if (photo && photographs.get(photo.photoId)?.sha256 !== photo.sha256)
      find(`${serial}: the photograph of its label is missing, or another.`);
  } catch {
    find(`${serial}: what was handed over with it cannot be read.`);
  }
}

function asObject(body: Buffer): Record<string, unknown> | null {
  try {
    const value: unknown = JSON.parse(body.toString('utf8'));
    return typeof value === 'object' && value !== null && !Array.isArray(value)
      ? (value as Record<string, unknown>)
      : null;
  } catch {
    return null;
  }
}
