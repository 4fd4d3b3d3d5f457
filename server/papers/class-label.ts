import { LABEL_MARGIN_MM, labelLayout, type ClassLabel, type LabelLayout, type LabelSize } from '@decurio/core';
import { HttpProblem } from '../problems.js';
import { inFont, INKS, type Paper } from './kit.js';

export const MM = 72 / 25.4;
const MARGIN = LABEL_MARGIN_MM * MM;

/** How a label is laid out at a size. @throws `labelTooSmall` with the size that would do */
export function layoutOf(label: ClassLabel, size: LabelSize): LabelLayout {
  const layout = labelLayout(label, size);
  if (!layout.ok) throw new HttpProblem('labelTooSmall', { message: layout.problem.message });
  return layout.value;
}

/** A label at its true size, its upper left corner at a point of the page. */
export function drawLabel(paper: Paper, label: ClassLabel, layout: LabelLayout, x: number, y: number): void {
  const [wide, high] = [layout.widthMm * MM, layout.heightMm * MM];
  const within = { width: wide - 2 * MARGIN };
  paper.rect(x, y, wide, high).lineWidth(1).strokeColor(INKS.ink).stroke();
  paper.x = x + MARGIN;
  paper.y = y + MARGIN;
  if (label.warning) {
    paper.fontSize(layout.titlePt).fillColor(INKS.madder);
    paper.text(inFont(paper, 'label', label.warning.title), x + MARGIN, paper.y, within);
    paper.fontSize(layout.footPt).fillColor(INKS.ink);
    paper.text(inFont(paper, 'strong', label.warning.says), x + MARGIN, paper.y, within);
    paper
      .rect(x + 2, y + 2, wide - 4, high - 4)
      .lineWidth(2.5)
      .strokeColor(INKS.madder)
      .stroke();
    paper.y += 2;
  }
  paper.fontSize(layout.titlePt).fillColor(INKS.ink);
  paper.text(inFont(paper, 'label', label.title), x + MARGIN, paper.y, within);
  paper.fontSize(layout.linePt);
  for (const { name, value } of label.lines) {
    const top = paper.y;
    paper.text(inFont(paper, 'label', `${name} `), x + MARGIN, top, { ...within, continued: true });
    paper.text(inFont(paper, 'codeStrong', value), { continued: false });
  }
  paper.y += 2;
  paper.fontSize(layout.footPt);
  paper.text(inFont(paper, 'label', label.foot), x + MARGIN, paper.y, within);
}
