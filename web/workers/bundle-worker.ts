import { expose, transfer } from 'comlink';
import { PDFDocument } from 'pdf-lib';

let bundle: PDFDocument | null = null;

/** Puts PDFs one behind another, off the page's own thread. */
const binder = {
  async begin(title: string): Promise<void> {
    bundle = await PDFDocument.create();
    bundle.setTitle(title);
    bundle.setCreator('Decurio');
  },
  /** @returns pages so far */
  async add(pdf: ArrayBuffer): Promise<number> {
    if (!bundle) throw new Error('nothing was begun');
    const part = await PDFDocument.load(pdf);
    for (const page of await bundle.copyPages(part, part.getPageIndices())) bundle.addPage(page);
    return bundle.getPageCount();
  },
  async end(): Promise<ArrayBuffer> {
    if (!bundle) throw new Error('nothing was begun');
    const bytes = await bundle.save();
    bundle = null;
    const { buffer } = bytes;
    return transfer(buffer as ArrayBuffer, [buffer as ArrayBuffer]);
  },
};

export type Binder = typeof binder;
expose(binder);
