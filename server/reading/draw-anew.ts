import sharp from 'sharp';
import { HttpProblem } from '../problems.js';

/** Longest side that the record keeps; the bench sends no larger one. */
const MOST_PX = 1600;
/** A picture of more pixels than any camera's is made to fill memory. */
const MOST_PIXELS = 40_000_000;
const LONGEST_S = 10;
const QUALITY = 82;

export interface Drawn {
  readonly body: Buffer;
  readonly widthPx: number;
  readonly heightPx: number;
}

/**
 * Draws a JPEG photograph anew, upright and no larger than the record keeps it. What comes out holds the picture and
 * nothing else: no place, no camera, no words, nothing behind its end. Runs in the library's own threads.
 * @throws `notAPhoto` where it is none, or not a whole one
 */
export async function drawAnew(photo: Buffer): Promise<Drawn> {
  try {
    const picture = sharp(photo, { limitInputPixels: MOST_PIXELS, failOn: 'truncated', sequentialRead: true });
    if ((await picture.metadata()).format !== 'jpeg') throw new HttpProblem('notAPhoto');
    const { data, info } = await picture
      .rotate()
      .resize({ width: MOST_PX, height: MOST_PX, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: QUALITY })
      .timeout({ seconds: LONGEST_S })
      .toBuffer({ resolveWithObject: true });
    return { body: data, widthPx: info.width, heightPx: info.height };
  } catch {
    throw new HttpProblem('notAPhoto');
  }
}
