import { toBuffer } from '@bwip-js/node';
import { MM } from './class-label.js';
import { codeSquare, inFont, INKS, type Paper } from './kit.js';

/** What hangs on the handlebar: who it is, for whom, and both codes that a scanner reads. */
export interface UnitTag {
  readonly serial: string;
  readonly typeName: string;
  readonly orderNumber: string;
  readonly customer: string;
  /** What the code square says. */
  readonly square: string;
}

export const TAG = { widthMm: 90, heightMm: 55 } as const;

export async function drawTag(paper: Paper, tag: UnitTag, x: number, y: number): Promise<void> {
  const [wide, high, margin] = [TAG.widthMm * MM, TAG.heightMm * MM, 4 * MM];
  const square = 24 * MM;
  paper.rect(x, y, wide, high).lineWidth(0.8).strokeColor(INKS.ink).stroke();
  codeSquare(paper, tag.square, x + wide - margin - square, y + margin, square);
  const within = { width: wide - 3 * margin - square };
  paper.fontSize(20).fillColor(INKS.ink);
  paper.text(inFont(paper, 'codeStrong', tag.serial), x + margin, y + margin, within);
  paper.fontSize(10);
  paper.text(inFont(paper, 'label', tag.typeName), x + margin, paper.y + 2, within);
  paper.text(inFont(paper, 'text', `${tag.orderNumber}: ${tag.customer}`), x + margin, paper.y, within);
  const bars = await toBuffer({ bcid: 'code128', text: asciiOf(tag.serial), height: 9, includetext: false, scale: 4 });
  paper.image(bars, x + margin, y + high - margin - 13 * MM, { fit: [wide - 2 * margin, 13 * MM] });
}

/** Code 128 has letters of ASCII alone. */
const asciiOf = (text: string): string => text.replace(/[^\x20-\x7e]/g, '?');
