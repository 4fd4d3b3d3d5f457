import type { VehicleType } from '../setup/inputs/vehicle-type.js';
import type { VehicleClass } from '../setup/inputs/vehicle-class.js';
import { badFigure } from '../figures.js';
import { ok, refuse, type Result } from '../result.js';

/** Sizes a label can be printed at, mm. */
export const LABEL_SIZES = {
  small: { widthMm: 50, heightMm: 30 },
  usual: { widthMm: 66, heightMm: 48 },
  large: { widthMm: 90, heightMm: 55 },
} as const;
export type LabelSize = keyof typeof LABEL_SIZES;

/** A class label before it is drawn. */
export interface ClassLabel {
  /** Loud, in a frame of its own, where it must never go on a public road; null where it may. */
  readonly warning: { readonly title: string; readonly says: string } | null;
  readonly title: string;
  readonly lines: readonly { readonly name: string; readonly value: string }[];
  readonly foot: string;
  /** Least height of letters that the class asks for, mm; a legible 2 where it names none. Our own line at the foot has 2. */
  readonly letterMm: number;
  /** What the class asks to stand there, in its own words: compared by whoever fixes it. */
  readonly asked: readonly string[];
}

/** Where a class names none: what can be read at arm's length. */
const LEGIBLE_MM = 2;

export function classLabel({
  type,
  vehicleClass,
  limitWords,
  serial,
  customer,
  month,
  privateLand,
}: {
  readonly type: Pick<VehicleType, 'ratedPowerW'>;
  readonly vehicleClass: VehicleClass;
  /** As it was laid down; null where nothing limits. */
  readonly limitWords: string | null;
  readonly serial: string;
  readonly customer: string;
  /** In which it was sealed, such as `Dec 2026`. */
  readonly month: string;
  readonly privateLand: { readonly label: string; readonly endsOn: string } | null;
}): ClassLabel {
  return {
    warning: privateLand && {
      title: 'NOT FOR PUBLIC ROADS',
      says: `${privateLand.label}. Until ${privateLand.endsOn}.`,
    },
    title: capital(vehicleClass.title),
    lines: [
      ...(limitWords === null ? [] : [{ name: 'Drive ends at', value: limitWords }]),
      { name: 'Motor, rated', value: `${type.ratedPowerW} W` },
      ...(vehicleClass.greatestMassKg === null
        ? []
        : [{ name: 'At most', value: `${vehicleClass.greatestMassKg} kg` }]),
      { name: 'Serial', value: serial },
    ],
    foot: `${customer} · ${month}. A changed setting needs a new label.`,
    letterMm: Math.max(vehicleClass.labelLetterMm ?? 0, LEGIBLE_MM),
    asked: vehicleClass.labelFields,
  };
}

/** A title's letters over those of its lines. */
const TITLE = 1.2;

/** An A4 sheet, mm, and what printers leave white at its edge. */
const SHEET = { widthMm: 210, heightMm: 297, edgeMm: 5, gapMm: 1 } as const;

/** How labels of one size stand on an A4 sheet, mm from its upper left corner. */
export interface LabelSheet {
  readonly perSheet: number;
  /** The upper left corner of the label at a place, row by row. */
  readonly at: (place: number) => { readonly xMm: number; readonly yMm: number };
}

/**
 * As many labels as an A4 sheet takes, with a gap to cut in, in the middle of the sheet.
 * @example
 * labelSheet('usual').perSheet; // 15
 * labelSheet('usual').at(0); // { xMm: 5, yMm: 26.5 }
 */
export function labelSheet(size: LabelSize): LabelSheet {
  const { widthMm, heightMm } = LABEL_SIZES[size];
  const fit = (whole: number, one: number): number =>
    Math.floor((whole - 2 * SHEET.edgeMm + SHEET.gapMm) / (one + SHEET.gapMm));
  const before = (whole: number, one: number, count: number): number =>
    (whole - count * one - (count - 1) * SHEET.gapMm) / 2;
  const [columns, rows] = [fit(SHEET.widthMm, widthMm), fit(SHEET.heightMm, heightMm)];
  const [left, top] = [before(SHEET.widthMm, widthMm, columns), before(SHEET.heightMm, heightMm, rows)];
  return {
    perSheet: columns * rows,
    at: (place) => ({
      xMm: left + (place % columns) * (widthMm + SHEET.gapMm),
      yMm: top + Math.floor(place / columns) * (heightMm + SHEET.gapMm),
    }),
  };
}

/** Height of a capital of our label font over its size. */
const CAPITAL = 0.7;
const POINTS_PER_MM = 72 / 25.4;

/** Size of letters, points, whose capitals are so many mm high. */
export const pointsFor = (letterMm: number): number => (letterMm / CAPITAL) * POINTS_PER_MM;

/** How a label is laid out: letters as large as the paper takes, never under what the class asks. */
export interface LabelLayout {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Points. */
  readonly titlePt: number;
  readonly linePt: number;
  readonly footPt: number;
}

/** Kept free within its edge, mm. */
export const LABEL_MARGIN_MM = 2.5;
const LEADING = 1.22;
/** Letters are tried larger than the least by so much a step. */
const LARGER_BY = 0.05;
const LARGER_STEPS = 16;
/** Mean width of a letter of the condensed label font over its size. */
const LETTER_WIDTH = 0.47;

/**
 * Lays a label out at a size.
 * @returns refused, with the size that would do, where its letters would have to be lower than the class asks (`tooSmall`)
 */
export function labelLayout(label: ClassLabel, size: LabelSize): Result<LabelLayout> {
  const { widthMm, heightMm } = LABEL_SIZES[size];
  const bad = badFigure({ 'The least letter': [label.letterMm, 'aboveZero'] });
  if (bad) return { ok: false, problem: bad };
  const least = pointsFor(label.letterMm);
  for (let step = LARGER_STEPS; step >= 0; step--) {
    const scale = 1 + step * LARGER_BY;
    const layout = {
      widthMm,
      heightMm,
      titlePt: least * scale * TITLE,
      linePt: least * scale,
      footPt: Math.min(least, pointsFor(LEGIBLE_MM)),
    };
    if (heightOf(label, layout) <= (heightMm - 2 * LABEL_MARGIN_MM) * POINTS_PER_MM) return ok(layout);
  }
  const sizes = Object.keys(LABEL_SIZES) as readonly LabelSize[];
  const larger = sizes.slice(sizes.indexOf(size) + 1).find((each) => labelLayout(label, each).ok);
  return refuse(
    'tooSmall',
    larger
      ? `With letters of ${label.letterMm} mm it does not fit on ${widthMm} by ${heightMm} mm: choose ${LABEL_SIZES[larger].widthMm} by ${LABEL_SIZES[larger].heightMm}.`
      : `With letters of ${label.letterMm} mm it fits on no size there is: shorten the title of the class, or the customer.`,
  );
}

function heightOf(label: ClassLabel, { widthMm, titlePt, linePt, footPt }: LabelLayout): number {
  const width = (widthMm - 2 * LABEL_MARGIN_MM) * POINTS_PER_MM;
  const lines = (text: string, pt: number): number => Math.max(1, Math.ceil((text.length * pt * LETTER_WIDTH) / width));
  const tall = (text: string, pt: number): number => lines(text, pt) * pt * LEADING;
  return (
    (label.warning ? tall(label.warning.title, titlePt) + tall(label.warning.says, footPt) + 8 : 0) +
    tall(label.title, titlePt) +
    label.lines.reduce((sum, { name, value }) => sum + tall(`${name} ${value}`, linePt), 0) +
    tall(label.foot, footPt) +
    8
  );
}

const capital = (words: string): string => words.charAt(0).toLocaleUpperCase() + words.slice(1);
