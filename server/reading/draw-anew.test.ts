import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import type { HttpProblem } from '../problems.js';
import { drawAnew } from './draw-anew.js';

const PLACE = 'LAT 48.5 LON -12.0';
const plain = (width = 800, height = 400) =>
  sharp({ create: { width, height, channels: 3, background: '#386' } })
    .jpeg()
    .toBuffer();

/** Puts a segment of the given marker behind the first two bytes of a JPEG, or before its picture data. */
function withSegment(jpeg: Buffer, marker: number, words: string, at = 2): Buffer {
  const payload = Buffer.from(words);
  const head = Buffer.from([0xff, marker, 0, 0]);
  head.writeUInt16BE(payload.length + 2, 2);
  return Buffer.concat([jpeg.subarray(0, at), head, payload, jpeg.subarray(at)]);
}

const beforeScan = (jpeg: Buffer): number => jpeg.indexOf(Buffer.from([0xff, 0xda]));

describe('a photograph drawn anew', () => {
  it.each<readonly [string, (jpeg: Buffer) => Buffer | Promise<Buffer>]>([
    ['in a comment', (jpeg) => withSegment(jpeg, 0xfe, PLACE)],
    ['in APP9', (jpeg) => withSegment(jpeg, 0xe9, PLACE)],
    ['in a late APP1', (jpeg) => withSegment(jpeg, 0xe1, `Exif\0\0${PLACE}`, beforeScan(jpeg))],
    ['behind its end', (jpeg) => Buffer.concat([jpeg, Buffer.from(PLACE.repeat(100_000))])],
    [
      'as a place of its own',
      (jpeg) =>
        sharp(jpeg)
          .withExif({ IFD0: { ImageDescription: PLACE }, IFD3: { GPSLatitudeRef: 'N' } })
          .jpeg()
          .toBuffer(),
    ],
  ])('keeps no words that stood %s', async (_, hide) => {
    const sent = await hide(await plain());
    expect(sent.includes(PLACE)).toBe(true);
    const { body, widthPx, heightPx } = await drawAnew(sent);
    expect(body.includes(PLACE)).toBe(false);
    expect(body.length).toBeLessThan(100_000);
    const left = await sharp(body).metadata();
    expect([left.exif, left.xmp, left.iptc, left.icc]).toEqual([undefined, undefined, undefined, undefined]);
    expect([widthPx, heightPx]).toEqual([800, 400]);
  });

  it('stands upright and is made small', async () => {
    const lying = await sharp(await plain(2400, 1200))
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    expect(await drawAnew(lying)).toMatchObject({ widthPx: 800, heightPx: 1600 });
  });

  it.each<readonly [string, () => Buffer | Promise<Buffer>]>([
    ['nothing', () => Buffer.alloc(0)],
    ['words', () => Buffer.from('no picture')],
    [
      'a PNG',
      async () =>
        sharp(await plain())
          .png()
          .toBuffer(),
    ],
    [
      'the first half of one',
      async () => {
        const jpeg = await sharp({
          create: {
            width: 900,
            height: 900,
            channels: 3,
            noise: { type: 'gaussian', mean: 120, sigma: 60 },
            background: '#000',
          },
        })
          .jpeg()
          .toBuffer();
        return jpeg.subarray(0, jpeg.length / 2);
      },
    ],
    [
      'one that says it is huge',
      async () => {
        const jpeg = await plain();
        const frame = jpeg.indexOf(Buffer.from([0xff, 0xc0]));
        jpeg.writeUInt16BE(65_000, frame + 5);
        jpeg.writeUInt16BE(65_000, frame + 7);
        return jpeg;
      },
    ],
    ['a head alone', async () => (await plain()).subarray(0, 40)],
  ])('is none where it is %s', async (_, make) => {
    expect(
      await drawAnew(await make()).then(
        () => 'drawn',
        (error: HttpProblem) => error.code,
      ),
    ).toBe('notAPhoto');
  });
});
