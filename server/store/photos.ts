import { createHash } from 'node:crypto';
import type { EntryOf } from '@decurio/core';
import type { PhotoKept } from '@decurio/contract';
import { MoreThan, type DataSource, type EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { drawAnew, type Drawn } from '../reading/draw-anew.js';
import { Photos, type PhotoRow } from './entities.js';
import { inTransaction } from './transaction.js';
import { lockVisit } from './locked-rows.js';

/** What one visit, and the whole house in a day, may keep. */
export const PHOTO_LIMITS = {
  perVisit: { photos: 24, bytes: 16 * 1024 * 1024 },
  perDay: { photos: 4_000, bytes: 1024 * 1024 * 1024 },
} as const;
const DAY_MS = 86_400_000;

export interface NewPhoto {
  readonly id: string;
  readonly visitId: string;
  readonly body: Buffer;
  readonly byName: string;
}

/**
 * Keeps a photograph, drawn anew so that nothing but the picture is in it; the hash of what is kept comes back for the
 * evidence to name. Sending it twice is harmless: what was kept first stands.
 */
export async function keepPhoto(
  source: DataSource,
  unitId: string,
  { id, visitId, body, byName }: NewPhoto,
): Promise<PhotoKept> {
  const earlier = await source.manager.findOneBy(Photos, { id });
  const drawn = earlier ? null : await drawAnew(body);
  return inTransaction(source, async (manager) => {
    await lockVisit(manager, unitId, visitId);
    const twin = earlier ?? (await manager.findOneBy(Photos, { id }));
    if (twin && twin.visitId !== visitId) throw new HttpProblem('idReused');
    if (twin || !drawn) return keptOf(twin ?? earlier);
    await guardRoom(manager, visitId, drawn);
    const row: PhotoRow = {
      id,
      visitId,
      ...drawn,
      sha256: createHash('sha256').update(drawn.body).digest('hex'),
      bytes: drawn.body.length,
      byName,
      takenAt: new Date(),
    };
    await manager.insert(Photos, row);
    return keptOf(row);
  });
}

function keptOf(row: PhotoRow | null): PhotoKept {
  if (!row) throw new HttpProblem('notFound', { message: 'There is no such photograph.' });
  const { id, sha256, bytes, widthPx, heightPx } = row;
  return { id, sha256, bytes, widthPx, heightPx };
}

async function guardRoom(manager: EntityManager, visitId: string, { body }: Drawn): Promise<void> {
  const { perVisit, perDay } = PHOTO_LIMITS;
  const since = new Date(Date.now() - DAY_MS);
  const [ofVisit, bytesOfVisit] = [
    await manager.countBy(Photos, { visitId }),
    await manager.sum(Photos, 'bytes', { visitId }),
  ];
  if (ofVisit >= perVisit.photos || (bytesOfVisit ?? 0) + body.length > perVisit.bytes)
    throw new HttpProblem('photosFull');
  const [ofDay, bytesOfDay] = [
    await manager.countBy(Photos, { takenAt: MoreThan(since) }),
    await manager.sum(Photos, 'bytes', { takenAt: MoreThan(since) }),
  ];
  if (ofDay >= perDay.photos || (bytesOfDay ?? 0) + body.length > perDay.bytes)
    throw new HttpProblem('photosFullToday');
}

export async function readPhoto(source: DataSource, id: string): Promise<Buffer> {
  const photo = await source.manager.findOneBy(Photos, { id });
  if (!photo) throw new HttpProblem('notFound', { message: 'There is no such photograph.' });
  return photo.body;
}

/** The entry must speak of a photograph that was kept, with its own hash. */
export async function guardPhoto(
  manager: EntityManager,
  visitId: string,
  { photoId, sha256 }: Pick<EntryOf<'photographed'>['data'], 'photoId' | 'sha256'>,
): Promise<void> {
  const photo = await manager.findOne(Photos, {
    where: { id: photoId },
    select: { id: true, visitId: true, sha256: true },
  });
  if (photo?.visitId !== visitId || photo.sha256 !== sha256) throw new HttpProblem('photoMissing');
}
