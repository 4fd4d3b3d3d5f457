import { createHash } from 'node:crypto';
import type { DeedOf } from '@decurio/core';
import type { PhotoKept } from '@decurio/contract';
import sharp from 'sharp';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Photos, Visits } from './entities.js';

/** Longest side as the bench sends it; a larger one was not made small there. */
const MOST_PX = 1600;

export interface NewPhoto {
  readonly id: string;
  readonly visitId: string;
  readonly body: Buffer;
  readonly byName: string;
}

/**
 * Keeps a photograph as it was sent, byte for byte, so that its hash can stand in the evidence. It must be a JPEG that
 * was made small and that carries no word on where or with what it was taken. Sending it twice is harmless.
 */
export async function keepPhoto(source: DataSource, unitId: string, { id, visitId, body, byName }: NewPhoto): Promise<PhotoKept> {
  const { manager } = source;
  const visit = await manager.findOneBy(Visits, { id: visitId });
  if (!visit) throw new HttpProblem('visitNotFound');
  if (visit.unitId !== unitId) throw new HttpProblem('otherVisit');
  const { widthPx, heightPx } = await measure(body);
  const sha256 = createHash('sha256').update(body).digest('hex');
  const twin = await manager.findOneBy(Photos, { id });
  if (twin && (twin.sha256 !== sha256 || twin.visitId !== visitId)) throw new HttpProblem('idReused');
  if (!twin) await manager.insert(Photos, { id, visitId, sha256, body, bytes: body.length, widthPx, heightPx, byName, takenAt: new Date() });
  return { id, sha256, bytes: body.length, widthPx, heightPx };
}

async function measure(body: Buffer): Promise<{ readonly widthPx: number; readonly heightPx: number }> {
  const read = await sharp(body, { limitInputPixels: 40_000_000 }).metadata().catch(() => null);
  if (read?.format !== 'jpeg') throw new HttpProblem('notAPhoto');
  if (read.exif || read.xmp || read.iptc) throw new HttpProblem('photoTells');
  if (Math.max(read.width, read.height) > MOST_PX) throw new HttpProblem('photoTooLarge');
  return { widthPx: read.width, heightPx: read.height };
}

export async function readPhoto(source: DataSource, id: string): Promise<Buffer> {
  const photo = await source.manager.findOneBy(Photos, { id });
  if (!photo) throw new HttpProblem('notFound', { message: 'There is no such photograph.' });
  return photo.body;
}

/** The entry must speak of a photograph that was kept, with its own hash. */
export async function guardPhoto(manager: EntityManager, visitId: string, { photoId, sha256 }: DeedOf<'photographed'>['data']): Promise<void> {
  const photo = await manager.findOne(Photos, { where: { id: photoId }, select: { id: true, visitId: true, sha256: true } });
  if (photo?.visitId !== visitId || photo.sha256 !== sha256) throw new HttpProblem('photoMissing');
}
