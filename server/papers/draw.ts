import {
  labelSheet,
  shortSeal,
  type ClassLabel,
  type DisplayMap,
  type LabelSize,
  type OdometerLetter,
  type RiderCard,
  type VisitRecord,
} from '@decurio/core';
import { drawCertificate } from './certificate.js';
import { drawLabel, layoutOf, MM } from './class-label.js';
import { makeDeliveryNote, markDraft, type DeliveryNote } from './delivery-note.js';
import { A4, finish, inFont, INKS, isFresh, newPaper, PAGE, type Paper } from './kit.js';
import { drawOdometerLetter } from './odometer-letter.js';
import { drawRiderCard } from './rider-card.js';
import { drawTag, TAG, type UnitTag } from './unit-tag.js';

/*
 * Papers are drawn in a thread of their own: a certificate takes some ten milliseconds, an order's papers minutes.
 */

/** Everything that the papers of one unit are drawn from. */
export interface UnitPapers {
  readonly record: VisitRecord;
  readonly map: DisplayMap;
  readonly zone: string;
  readonly isSealed: boolean;
  readonly isPrivateLand: boolean;
  readonly typeName: string;
  readonly label: ClassLabel;
  readonly card: RiderCard;
  readonly tag: UnitTag;
  /** Null where its display was never changed. */
  readonly odometer: OdometerLetter | null;
}

export type UnitPaper = 'certificate' | 'label' | 'riderCard' | 'tag' | 'odometerLetter';

export interface DrawTask {
  readonly papers: UnitPapers;
  readonly which: readonly UnitPaper[];
  readonly labelSize: LabelSize;
}

/** Papers of one unit in one PDF, in the order asked. A label or a tag alone has a page of its own size. */
export async function unitPapers({ papers, which, labelSize }: DrawTask): Promise<Uint8Array> {
  const { record, map, zone, isSealed, label, card, tag } = papers;
  const alone = which.length === 1 ? which[0] : undefined;
  const layout = which.includes('label') ? layoutOf(label, labelSize) : null;
  const size: readonly [number, number] | undefined =
    alone === 'label' && layout
      ? [layout.widthMm * MM, layout.heightMm * MM]
      : alone === 'tag'
        ? [TAG.widthMm * MM, TAG.heightMm * MM]
        : undefined;
  const paper = newPaper({ title: `Papers of ${record.serial}`, madeAt: record.sealedAt, ...(size ? { size } : {}) });
  const asked = which.filter((each) => each !== 'odometerLetter' || papers.odometer !== null);
  for (const each of asked) {
    if (!isFresh(paper) && !size) paper.addPage();
    if (each === 'certificate') drawCertificate(paper, record, map, zone);
    else if (each === 'riderCard')
      drawRiderCard(paper, card, {
        serial: record.serial,
        typeName: papers.typeName,
        isPrivateLand: papers.isPrivateLand,
      });
    else if (each === 'odometerLetter' && papers.odometer)
      drawOdometerLetter(paper, papers.odometer, { ...tag, seal: shortSeal(record.seal), zone });
    else if (each === 'label' && layout) {
      if (size) drawLabel(paper, label, layout, 0, 0);
      else
        drawCut(paper, 'Class label: cut along the line', () => drawLabel(paper, label, layout, PAGE.margin, paper.y));
    } else if (each === 'tag') {
      if (size) await drawTag(paper, tag, 0, 0);
      else {
        words(paper, 'Unit tag: cut along the line');
        await drawTag(paper, tag, PAGE.margin, paper.y);
      }
    }
  }
  if (!isSealed) markDraft(paper);
  return finish(paper);
}

function words(paper: Paper, says: string): void {
  paper.fontSize(9).fillColor(INKS.soft);
  paper.text(inFont(paper, 'text', says), PAGE.margin, PAGE.margin);
  paper.y += 6;
}

function drawCut(paper: Paper, says: string, draw: () => void): void {
  words(paper, says);
  draw();
}

export interface SheetTask {
  readonly title: string;
  readonly madeAt: string;
  /** No more than a sheet takes. */
  readonly labels: readonly ClassLabel[];
  readonly labelSize: LabelSize;
}

/** Labels of several units on one A4 sheet, each at its true size. */
export async function labelSheetPaper({ title, madeAt, labels, labelSize }: SheetTask): Promise<Uint8Array> {
  const sheet = labelSheet(labelSize);
  const paper = newPaper({ title, madeAt, size: A4 });
  for (const [place, label] of labels.entries()) {
    const { xMm, yMm } = sheet.at(place);
    drawLabel(paper, label, layoutOf(label, labelSize), xMm * MM, yMm * MM);
  }
  return finish(paper);
}

/** The delivery note of an order. */
export const deliveryNote = (note: DeliveryNote): Promise<Uint8Array> => makeDeliveryNote(note);
