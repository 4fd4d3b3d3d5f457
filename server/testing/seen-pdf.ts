import { createCanvas } from '@napi-rs/canvas';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** One page of a paper as a person sees it: what it says, and where there is ink. */
export interface SeenPage {
  readonly widthPt: number;
  readonly heightPt: number;
  readonly text: string;
  /** Each run of words with its box, points from the upper left corner. */
  readonly words: readonly {
    readonly says: string;
    readonly left: number;
    readonly right: number;
    readonly top: number;
    readonly bottom: number;
    readonly sizePt: number;
  }[];
  /** Share of a strip of the page, 0 to 1 of its width and height, that is not white. */
  readonly ink: (
    from: { readonly x: number; readonly y: number },
    to: { readonly x: number; readonly y: number },
  ) => number;
}

/** Draws a PDF and reads it back, page by page. */
export async function seenPdf(pdf: Buffer): Promise<readonly SeenPage[]> {
  const document = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
  const pages: SeenPage[] = [];
  for (let i = 1; i <= document.numPages; i++) {
    const page = await document.getPage(i);
    const viewport = page.getViewport({ scale: 1 });
    const canvas = createCanvas(Math.ceil(viewport.width), Math.ceil(viewport.height));
    const context = canvas.getContext('2d');
    context.fillStyle = '#fff';
    context.fillRect(0, 0, canvas.width, canvas.height);
    await page.render({
      canvas: canvas as unknown as HTMLCanvasElement,
      canvasContext: context as unknown as CanvasRenderingContext2D,
      viewport,
    }).promise;
    const { data } = context.getImageData(0, 0, canvas.width, canvas.height);
    const { items } = await page.getTextContent();
    const words = items.flatMap((item) => {
      if (!('str' in item) || item.str.trim() === '') return [];
      const [, , , sizePt = 0, left = 0, base = 0] = item.transform as number[];
      const top = viewport.height - base - sizePt;
      return [
        {
          says: item.str,
          left,
          right: left + item.width,
          top,
          bottom: viewport.height - base,
          sizePt: Math.abs(sizePt),
        },
      ];
    });
    pages.push({
      widthPt: viewport.width,
      heightPt: viewport.height,
      text: words.map(({ says }) => says).join(' '),
      words,
      ink: (from, to) => {
        let [dark, all] = [0, 0];
        for (let y = Math.floor(from.y * canvas.height); y < to.y * canvas.height; y++)
          for (let x = Math.floor(from.x * canvas.width); x < to.x * canvas.width; x++) {
            const at = 4 * (y * canvas.width + x);
            if ((data[at] ?? 255) + (data[at + 1] ?? 255) + (data[at + 2] ?? 255) < 720) dark++;
            all++;
          }
        return all === 0 ? 0 : dark / all;
      },
    });
  }
  await document.cleanup();
  return pages;
}

/** All that the pages say. */
export const saidBy = (pages: readonly SeenPage[]): string => pages.map(({ text }) => text).join(' ');

/** Words that run over the edge of their page, or over other words. */
export function overflowOf(pages: readonly SeenPage[], marginPt = 0): readonly string[] {
  return pages.flatMap(({ words, widthPt, heightPt }, i) =>
    words
      .filter(
        ({ left, right, top, bottom }) =>
          left < marginPt - 1 || right > widthPt - marginPt + 1 || top < 0 || bottom > heightPt,
      )
      .map(({ says }) => `page ${i + 1}: ${says}`),
  );
}
