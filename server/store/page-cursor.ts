import { HttpProblem } from '../problems.js';

/** Where a page read by key ended: the last row's time and id. */
export interface Cursor {
  readonly at: Date;
  readonly id: string;
}

export const writeCursor = ({ at, id }: Cursor): string =>
  Buffer.from(`${at.toISOString()}|${id}`).toString('base64url');

/** Throws `badRequest` on anything `writeCursor` did not write. */
export function readCursor(text: string): Cursor {
  const [time = '', id = ''] = Buffer.from(text, 'base64url').toString('utf8').split('|');
  const at = new Date(time);
  if (Number.isNaN(at.getTime()) || id === '')
    throw new HttpProblem('badRequest', { message: 'This page address is broken. Start at the first page.' });
  return { at, id };
}
