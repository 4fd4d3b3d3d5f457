import { momentIn } from '../../house-time.js';
import { decimalIn } from '../../numerals.js';
import { ok, refuse, type Result } from '../../result.js';
import type { Stretch } from './steady-stretches.js';

/** What a display showed at a moment of a ride. */
export interface ShownAt {
  readonly ms: number;
  readonly shown: number;
}

/** A stretch with what was shown on it. */
export interface ShownOnStretch {
  readonly stretch: Stretch;
  /** Mean of the figures noted on it. */
  readonly shown: number;
  readonly count: number;
}

/** Figures noted so near an end of a stretch belong to the change of speed, ms. */
export const MARGIN_MS = 3_000;

/** Figures by the stretch they fall on; those near its ends or on none are left over. */
export function shownOnStretches(
  stretches: readonly Stretch[],
  marks: readonly ShownAt[],
): { readonly on: readonly ShownOnStretch[]; readonly leftOver: readonly ShownAt[] } {
  const holds = (stretch: Stretch, { ms }: ShownAt): boolean =>
    ms >= stretch.fromMs + MARGIN_MS && ms <= stretch.toMs - MARGIN_MS;
  const on = stretches.flatMap((stretch) => {
    const own = marks.filter((mark) => holds(stretch, mark));
    return own.length === 0
      ? []
      : [{ stretch, shown: own.reduce((sum, { shown }) => sum + shown, 0) / own.length, count: own.length }];
  });
  return { on, leftOver: marks.filter((mark) => !stretches.some((stretch) => holds(stretch, mark))) };
}

/**
 * Reads lines of `time,shown`: the time as in the track (2026-11-25T10:15:30Z), as seconds or as m:ss since its start.
 * `rows` are the cells of a file, header or not; times without a zone stand in `zone`.
 * Refuses: noTime, noSpeed, noRows.
 */
export function readShownTimes(
  rows: readonly (readonly string[])[],
  startMs: number,
  zone: string,
): Result<readonly ShownAt[]> {
  const marks: ShownAt[] = [];
  for (const [index, [time = '', shown = '']] of rows.entries()) {
    const at = momentOf(time.trim(), startMs, zone);
    const value = decimalIn(shown);
    const isHeader = index === 0 && at === null && value === null;
    if (isHeader || (time.trim() === '' && shown.trim() === '')) continue;
    if (at === null)
      return refuse(
        'noTime',
        `Line ${index + 1}: "${time}" is no time. Write it as in the track, as seconds, or as minutes:seconds since its start.`,
      );
    if (value === null || !(value > 0))
      return refuse('noSpeed', `Line ${index + 1}: "${shown}" is no speed above zero.`);
    marks.push({ ms: at, shown: value });
  }
  return marks.length === 0 ? refuse('noRows', 'There are no lines with a time and a shown speed.') : ok(marks);
}

function momentOf(text: string, startMs: number, zone: string): number | null {
  const [, minutes, seconds] = /^(\d+):([0-5]\d(?:\.\d+)?)$/.exec(text) ?? [];
  if (minutes !== undefined) return startMs + (Number(minutes) * 60 + Number(seconds)) * 1000;
  if (/^\d+(\.\d+)?$/.test(text)) return startMs + Number(text) * 1000;
  return momentIn(zone, text);
}
