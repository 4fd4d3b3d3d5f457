import { minutesAhead, shortened, timeIn, type VisitRecord } from '@decurio/core';
import type { PaperFont } from './fonts.js';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** A time as papers show it: the house's, and how far that is from UTC, because a paper travels. */
export const paperTime = (iso: string, zone: string): string => {
  const ms = Date.parse(iso);
  const ahead = minutesAhead(zone, ms);
  const [, year = '', month = '', day = '', time = ''] = /^(\d+)-(\d+)-(\d+)T(.*)$/.exec(timeIn(zone, ms)) ?? [];
  return `${Number(day)} ${MONTHS[Number(month) - 1]} ${year} ${time} UTC${ahead === 0 ? '' : offset(ahead)}`;
};

const offset = (minutes: number): string => {
  const [hours, rest] = [Math.floor(Math.abs(minutes) / 60), Math.abs(minutes) % 60];
  return `${minutes < 0 ? '-' : '+'}${String(hours).padStart(2, '0')}:${String(rest).padStart(2, '0')}`;
};

/** What the fonts of the house draw, and what the one for other scripts draws beside it. */
const OWN = /^[\u0020-\u024f\u2010-\u2026\u20ac\u2212]*$/u;
const NO_FONT = /[^\u0900-\u097f\u0020-\u024f\u0370-\u03ff\u0400-\u04ff\u1e00-\u1eff\u2010-\u2026\u20ac\u2212]/gu;

/** Text with what no font of ours can draw replaced, so that nothing vanishes without a trace. */
export const legible = (text: string): string => text.normalize('NFC').replace(NO_FONT, '?');

/** The font for a text: the one of its role, or for names in Greek, Cyrillic, Devanagari and the like one that has them. */
export function fontFor(role: PaperFont, text: string): PaperFont {
  if (OWN.test(text.normalize('NFC'))) return role;
  return role === 'text' || role === 'code' ? 'otherText' : 'otherStrong';
}

/** Words of a record that its papers cannot print as they stand, each once; empty where every letter has a font. */
export function unprintable(record: Pick<VisitRecord, 'evidence'>): readonly string[] {
  const found = new Set<string>();
  const look = (value: unknown): void => {
    if (typeof value === 'string') {
      if (legible(value) !== value.normalize('NFC')) found.add(shortened(value, 80));
    } else if (typeof value === 'object' && value !== null) Object.values(value).forEach(look);
  };
  look(record.evidence);
  return [...found].slice(0, 10);
}
