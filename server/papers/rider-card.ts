import { sentence, type RiderCard } from '@decurio/core';
import { across, inFont, INKS, masthead, PAGE, room, warning, type Paper } from './kit.js';

/** A rider card on a page of its own: what to do, and what this very vehicle does. */
export function drawRiderCard(
  paper: Paper,
  { language, title, rows }: RiderCard,
  {
    serial,
    typeName,
    isPrivateLand,
  }: { readonly serial: string; readonly typeName: string; readonly isPrivateLand: boolean },
): void {
  masthead(paper, { title, serial, says: typeName });
  if (isPrivateLand) warning(paper, sentence(language, 'onlyPrivate'), '');
  paper.moveDown(0.8);
  for (const { name, says } of rows) {
    room(paper, 40);
    const y = paper.y;
    paper.fontSize(11).fillColor(INKS.ink);
    paper.text(inFont(paper, 'label', name), PAGE.margin, y, { width: 112 });
    const low = paper.y;
    paper.fontSize(11).text(inFont(paper, 'text', says), PAGE.margin + 122, y, { width: PAGE.width - 122 });
    across(paper, Math.max(low, paper.y) + 3);
    paper.y += 3;
  }
}
