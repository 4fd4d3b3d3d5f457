import { parseDisplayMap, type DisplayMap, type VisitRecord } from '@decurio/core';
import type { ElsewhereArchive, ElsewhereRecord, ElsewhereView } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import type { ArchiveChecked } from '../archive/check-archive.js';
import type { OpenArchive } from '../archive/open-archive.js';
import { HttpProblem } from '../problems.js';
import { inTransaction } from './transaction.js';
import type { Writer } from './writer.js';

/**
 * Takes in an archive that was checked: what is known already stays as it is, whatever is new is kept apart from the
 * house's own ledger, with where it came from. Taken in again it changes nothing.
 */
export async function takeArchive(
  source: DataSource,
  archive: OpenArchive,
  { report, records }: ArchiveChecked,
  { by }: Writer,
): Promise<void> {
  const { manifest, id } = archive;
  await inTransaction(source, async (manager) => {
    await manager.query(
      'INSERT IGNORE INTO elsewhere_archive (id, origin, name, madeAt, records, takenBy, takenAt) VALUES (?, ?, ?, ?, ?, ?, UTC_TIMESTAMP(3))',
      [id, manifest.origin, manifest.of.name, manifest.madeAt, report.records, by.userId],
    );
    for (const { read, file, handover, standing } of records) {
      if (standing !== 'new') continue;
      const { cover } = read;
      await manager.query(
        `INSERT IGNORE INTO elsewhere_record (visitId, archiveId, serial, typeName, customer, orderNumber, mapId, mapVersion, seal, sealedAt, sealedBy, body, handover)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
        [
          read.visitId,
          id,
          read.serial.slice(0, 40),
          cover.typeName.slice(0, 60),
          cover.customer.slice(0, 120),
          cover.orderNumber.slice(0, 40),
          cover.map.id.slice(0, 60),
          cover.map.version,
          read.seal,
          new Date(cover.sealedAt),
          cover.sealedBy.slice(0, 80),
          (await archive.read(file)).toString('utf8'),
          handover ? (await archive.read(handover)).toString('utf8') : '',
        ],
      );
    }
    for (const file of manifest.files)
      if (file.kind === 'document' || file.kind === 'photo' || file.kind === 'checkpoint')
        await manager.query(
          'INSERT IGNORE INTO elsewhere_file (archiveId, name, kind, sha256, body) VALUES (?, ?, ?, ?, ?)',
          [id, file.name, file.kind, file.sha256, await archive.read(file)],
        );
  });
}

/** Takes out everything of an archive: what it says of persons goes with it. */
export async function dropArchive(source: DataSource, archiveId: string): Promise<void> {
  await inTransaction(source, async (manager) => {
    for (const [table, column] of [
      ['elsewhere_file', 'archiveId'],
      ['elsewhere_record', 'archiveId'],
      ['elsewhere_archive', 'id'],
    ])
      await manager.query(`DELETE FROM ${table} WHERE ${column} = ?`, [archiveId]);
  });
}

const MOST_SHOWN = 500;

const ROW = `r.visitId, r.serial, r.typeName, r.customer, r.orderNumber, r.sealedAt, r.sealedBy, r.seal, a.origin
  FROM elsewhere_record r JOIN elsewhere_archive a ON a.id = r.archiveId`;

type Row = Omit<ElsewhereRecord, 'sealedAt'> & { readonly sealedAt: Date };
const shown = ({ sealedAt, ...row }: Row): ElsewhereRecord => ({ ...row, sealedAt: sealedAt.toISOString() });

/** Archives of other houses, newest first, and the records of one of them. */
export async function elsewhereView(source: DataSource, archiveId?: string): Promise<ElsewhereView> {
  const archives = await source.query<(Omit<ElsewhereArchive, 'takenAt'> & { readonly takenAt: Date })[]>(
    `SELECT a.id, a.origin, a.name, a.madeAt, a.records, a.takenAt, COALESCE(p.displayName, '') AS takenBy
     FROM elsewhere_archive a LEFT JOIN account p ON p.id = a.takenBy ORDER BY a.takenAt DESC, a.id LIMIT ${MOST_SHOWN}`,
  );
  const rows =
    archiveId === undefined
      ? []
      : await source.query<Row[]>(
          `SELECT ${ROW} WHERE r.archiveId = ? ORDER BY r.sealedAt DESC, r.visitId LIMIT ${MOST_SHOWN}`,
          [archiveId],
        );
  return {
    archives: archives.map(({ takenAt, ...archive }) => ({ ...archive, takenAt: takenAt.toISOString() })),
    records: rows.map(shown),
  };
}

/** What other houses know of a serial. */
export async function elsewhereOf(source: DataSource, serial: string): Promise<readonly ElsewhereRecord[]> {
  const rows = await source.query<Row[]>(
    `SELECT ${ROW} WHERE r.serial = ? ORDER BY r.sealedAt DESC, r.visitId LIMIT 50`,
    [serial],
  );
  return rows.map(shown);
}

/** A record of another house as it was brought in, with the display's map that came with it. */
export async function elsewhereRecord(
  source: DataSource,
  visitId: string,
): Promise<ElsewhereRecord & { readonly record: VisitRecord; readonly map: DisplayMap | null }> {
  const [row] = await source.query<
    (Row & { readonly body: string; readonly archiveId: string; readonly mapId: string; readonly mapVersion: number })[]
  >(`SELECT r.body, r.archiveId, r.mapId, r.mapVersion, ${ROW} WHERE r.visitId = ?`, [visitId]);
  if (!row) throw new HttpProblem('visitNotFound');
  const { body, archiveId, mapId, mapVersion, ...rest } = row;
  const [file] = await source.query<{ body: Buffer }[]>(
    'SELECT body FROM elsewhere_file WHERE archiveId = ? AND name = ?',
    [archiveId, `documents/displayMap/${mapId}-${mapVersion}.json`],
  );
  return { ...shown(rest), record: JSON.parse(body) as VisitRecord, map: file ? mapIn(file.body) : null };
}

/** What another house calls a map is read as any map from outside is. */
function mapIn(body: Buffer): DisplayMap | null {
  try {
    const parsed = parseDisplayMap(JSON.parse(body.toString('utf8')));
    return parsed.ok ? parsed.map : null;
  } catch {
    return null;
  }
}
