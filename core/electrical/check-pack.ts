import { badFigure } from '../figures.js';
import { ok, type Result } from '../result.js';
import type { LabelledPack } from '../setup/inputs/vehicle-type.js';
import { CELL_VOLTS, countsInSeries, OPEN_BELOW_V } from './cell.js';
import { chargeTold } from './open-circuit.js';

/**
 * What a meter reading at rest says of a pack. `fits`: powered as it is. `empty`: charged first. `watched`: so empty that
 * it is charged only while somebody watches, and measured again. `ruined`: never charged or powered again. `open`: its
 * switch, fuse or protection is open. `tooHigh`: another pack, or overcharged.
 */
export type PackVerdict = 'fits' | 'empty' | 'watched' | 'ruined' | 'open' | 'tooHigh';

export interface PackCheck {
  readonly verdict: PackVerdict;
  /** Nothing is powered or charged by whoever stands here: it waits for somebody who decides. */
  readonly holds: boolean;
  readonly floorV: number;
  readonly fullV: number;
  /** Every usual count of this chemistry that puts the reading between floor and full. */
  readonly countsThatFit: readonly number[];
  /** What to do, for the bench. */
  readonly says: string;
}

/**
 * Holds a meter reading at rest against the pack that the type says is fitted. A loaded floor is no resting floor: what
 * rests under it has been drawn out too far.
 * @param packV volts between the pack's terminals, measured
 * @returns refused (`noFigure`) where volts or cells are none
 * @example
 * const pack = { chemistry: 'liIon', cellsInSeries: 10, labelV: 36, capacityAh: 13 } as const;
 * const at = (volts: number) => { const check = checkPack(pack, volts); return check.ok ? check.value.verdict : null; };
 * [40, 31, 28, 18, 0.3, 43].map(at); // ['fits', 'empty', 'watched', 'ruined', 'open', 'tooHigh']
 */
export function checkPack(pack: LabelledPack, packV: number): Result<PackCheck> {
  const { chemistry, cellsInSeries } = pack;
  const bad = badFigure({ 'The pack': [packV, 'notBelowZero'], 'Its number of cells': [cellsInSeries, 'whole'] });
  if (bad) return { ok: false, problem: bad };
  const cell = CELL_VOLTS[chemistry];
  const countsThatFit = countsInSeries(chemistry).filter(
    (n) => packV >= cell.floorV * n - DUST && packV <= cell.fullV * n + DUST,
  );
  const verdict = verdictOf(pack, packV / cellsInSeries);
  return ok({
    verdict,
    holds: verdict !== 'fits' && verdict !== 'empty',
    floorV: round(cell.floorV * cellsInSeries),
    fullV: round(cell.fullV * cellsInSeries),
    countsThatFit,
    says: `${WORDS[verdict](pack, packV)}${otherPack(pack, packV, verdict, countsThatFit)}`,
  });
}

const DUST = 1e-9;

function verdictOf({ chemistry }: LabelledPack, cellV: number): PackVerdict {
  const { fullV, restedLowV, watchedBelowV, ruinedBelowV } = CELL_VOLTS[chemistry];
  if (cellV > fullV + DUST) return 'tooHigh';
  if (cellV < OPEN_BELOW_V) return 'open';
  if (cellV < ruinedBelowV - DUST) return 'ruined';
  if (cellV < watchedBelowV - DUST) return 'watched';
  return cellV < restedLowV - DUST ? 'empty' : 'fits';
}

const volts = (value: number): string => `${value.toFixed(1)} V`;
const perCell = ({ cellsInSeries }: LabelledPack, packV: number): string =>
  `${(packV / cellsInSeries).toFixed(2)} V on each of ${cellsInSeries} cells`;
const span = ({ chemistry, cellsInSeries }: LabelledPack): string => {
  const { restedLowV, fullV } = CELL_VOLTS[chemistry];
  return `${cellsInSeries} cells read ${volts(restedLowV * cellsInSeries)} to ${volts(fullV * cellsInSeries)}`;
};

const WORDS: Readonly<Record<PackVerdict, (pack: LabelledPack, packV: number) => string>> = {
  fits: (pack) => `Fits: ${span(pack)}.`,
  empty: (pack, packV) =>
    `Nearly empty: ${perCell(pack, packV)} leaves about ${chargeWords(pack, packV)} %. Charge it with its own charger before it is run.`,
  watched: (pack, packV) =>
    `Drawn out too far: ${perCell(pack, packV)}. It is charged with its own charger only while somebody watches, away from what burns, and measured again before it is powered. One that warms, or does not rise, goes to whoever is qualified.`,
  ruined: (pack, packV) =>
    `Ruined: ${perCell(pack, packV)}. Never charge or power it again. It stands apart, outdoors, and goes to whoever is qualified.`,
  open: (_, packV) =>
    `${volts(packV)} is hardly anything: its switch, its fuse or its protection is open, or it is dead. Do not charge it. It goes to whoever is qualified.`,
  tooHigh: (pack) =>
    `Too high for this type: ${span(pack)}. It may be another pack, or overcharged: do not charge it, and do not power it until that is settled.`,
};

function chargeWords({ chemistry, cellsInSeries }: LabelledPack, packV: number): string {
  const told = chargeTold(chemistry, packV / cellsInSeries);
  return told ? String(Math.round(told.fromPercent)) : '0';
}

/** A reading that another count explains may be another pack: said, and no reason to power it. */
function otherPack(
  { cellsInSeries }: LabelledPack,
  packV: number,
  verdict: PackVerdict,
  counts: readonly number[],
): string {
  const others = counts.filter((n) => n !== cellsInSeries);
  if (verdict === 'fits' || verdict === 'empty' || others.length === 0) return '';
  return ` ${volts(packV)} would fit ${orWords(others)} cells: look whether it is this type's pack.`;
}

const orWords = (counts: readonly number[]): string =>
  counts.length < 2 ? counts.join('') : `${counts.slice(0, -1).join(', ')} or ${counts.at(-1)}`;

const round = (value: number): number => Math.round(value * 100) / 100;
