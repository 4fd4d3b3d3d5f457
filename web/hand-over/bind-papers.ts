import { wrap } from 'comlink';
import type { Binder } from '../workers/bundle-worker.js';
import { fetchPdf, type PdfAnswer } from './open-pdf.js';

/** So many are drawn at once: as many as the server has threads for it. */
const AT_ONCE = 2;

const NO_BINDER = 'They could not be bound into one. Nothing was printed; try again.';

/** A paper of the bundle: what it is called while it is drawn, and where it is had. */
export interface BundlePart {
  readonly name: string;
  readonly path: string;
}

export type Bundle =
  | { readonly ok: true; readonly bytes: ArrayBuffer; readonly pages: number }
  /** `done`: so many parts were drawn before. */
  | { readonly ok: false; readonly says: string; readonly done: number; readonly part: BundlePart | null };

/**
 * Papers drawn by the server, two at a time, and bound into one in their order, off the page's own thread.
 * @param onPart told before each part is waited for, with how many are bound
 */
export async function bindPapers(
  title: string,
  parts: readonly BundlePart[],
  signal: AbortSignal,
  onPart: (part: BundlePart, done: number) => void,
): Promise<Bundle> {
  const worker = new Worker(new URL('../workers/bundle-worker.ts', import.meta.url), { type: 'module' });
  const hasFailed = new Promise<never>((_, reject) => {
    worker.onerror = () => reject(new Error(NO_BINDER));
  });
  const binder = wrap<Binder>(worker);
  const bound = <T>(step: Promise<T>): Promise<T> => Promise.race([step, hasFailed]);
  const asked = new Map<number, Promise<PdfAnswer>>();
  const ask = (i: number) => {
    const part = parts[i];
    if (part) asked.set(i, fetchPdf(part.path, signal));
  };
  let done = 0;
  try {
    for (let i = 0; i < AT_ONCE; i++) ask(i);
    await bound(binder.begin(title));
    let pages = 0;
    for (const [i, part] of parts.entries()) {
      onPart(part, i);
      const answer = await asked.get(i);
      asked.delete(i);
      ask(i + AT_ONCE);
      if (!answer?.ok) return { ok: false, says: answer?.says ?? NO_BINDER, done, part };
      pages = await bound(binder.add(answer.pdf.bytes));
      done = i + 1;
    }
    return { ok: true, bytes: await bound(binder.end()), pages };
  } catch {
    return { ok: false, says: NO_BINDER, done, part: null };
  } finally {
    worker.terminate();
  }
}
