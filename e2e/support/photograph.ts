import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';

/** A photograph as a phone takes it: large, and with the place it was taken at. */
export async function photographFile(): Promise<string> {
  const file = join(tmpdir(), `decurio-photograph-${process.pid}.jpg`);
  const large = sharp({ create: { width: 3000, height: 2000, channels: 3, background: '#7a5' } });
  writeFileSync(
    file,
    await large
      .withExif({ IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '52/1 30/1 0/1' } })
      .jpeg()
      .toBuffer(),
  );
  return file;
}
