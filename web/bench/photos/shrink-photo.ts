const MOST_PX = 1600;
const QUALITY = 0.82;

/**
 * A photograph made small, as JPEG. It is drawn anew, so that nothing of where and with what it was taken is left in it.
 * Null where the file is no picture that this device can read.
 */
export async function shrinkPhoto(file: Blob): Promise<Blob | null> {
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => null);
  if (!picture) return null;
  const scale = Math.min(1, MOST_PX / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return new Promise((done) => canvas.toBlob(done, 'image/jpeg', QUALITY));
}

/** What is said of a file that is no picture. */
export const unreadablePhoto = ({ name }: File): string =>
  `${name} is no picture that this device can read. Take it as JPEG or PNG.`;

/** SHA-256 of the bytes, lower-case hex. */
export async function sha256Of(blob: Blob): Promise<string> {
  const digest = await crypto.subtle.digest('SHA-256', await blob.arrayBuffer());
  return [...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}
