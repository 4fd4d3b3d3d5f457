import { shortened } from '@decurio/core';
import type { ErrorBody } from '@decurio/contract';

export interface PdfMade {
  readonly bytes: ArrayBuffer;
  /** As the server drew it. */
  readonly sha256: string;
}

/** A paper, or why it could not be had. */
export type PdfAnswer = { readonly ok: true; readonly pdf: PdfMade } | { readonly ok: false; readonly says: string };

const UNREACHED = 'The server cannot be reached. Nothing was printed; try again once it answers.';

/** Fetches a PDF of the house. */
export async function fetchPdf(path: string, signal?: AbortSignal): Promise<PdfAnswer> {
  try {
    const answer = await fetch(`/api${path}`, signal ? { signal } : {});
    if (!answer.ok) {
      const body = (await answer.json().catch(() => null)) as ErrorBody | null;
      return { ok: false, says: body?.error.message ?? UNREACHED };
    }
    return {
      ok: true,
      pdf: { bytes: await answer.arrayBuffer(), sha256: answer.headers.get('x-paper-sha256') ?? '' },
    };
  } catch (error) {
    if ((error as Error).name === 'AbortError') return { ok: false, says: 'Stopped. Nothing was printed.' };
    return { ok: false, says: shortened(UNREACHED, 200) };
  }
}

/** Opens it where it is printed from; downloads it where a new page is not let through. */
export function openPdf(bytes: ArrayBuffer, name: string): void {
  const address = URL.createObjectURL(new Blob([bytes], { type: 'application/pdf' }));
  const page = window.open(address, '_blank');
  if (!page) {
    const link = document.createElement('a');
    link.href = address;
    link.download = name;
    link.click();
  }
  setTimeout(() => URL.revokeObjectURL(address), 5 * 60_000);
}
