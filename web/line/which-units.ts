import { STEPS, stepTitle, type StepId } from '@decurio/core';
import type { LineUnit } from '@decurio/contract';

/** What Line shows of a delivery: all of it, held ones, one's own, or those at a step. */
export type Which = 'all' | 'held' | 'mine' | StepId;

export interface Choice {
  readonly which: Which;
  readonly title: string;
  readonly hotkey: string;
  readonly count: number;
}

const isOf = (unit: LineUnit, which: Which, me: string): boolean => {
  if (which === 'all') return true;
  if (which === 'held') return unit.status === 'held';
  if (which === 'mine') return unit.status === 'open' && unit.worker === me;
  return unit.status === 'open' && unit.step === which;
};

/** What an address asks for, or everything. */
export function whichIn(text: string | null): Which {
  const known: readonly string[] = ['held', 'mine', ...STEPS.map(({ id }) => id)];
  return text !== null && known.includes(text) ? (text as Which) : 'all';
}

/** Everything, what is held, one's own, and the steps at which units stand, each with its key: steps by their number. */
export function choicesOf(units: readonly LineUnit[], me: string): readonly Choice[] {
  const choice = (which: Which, title: string, hotkey: string): Choice => ({
    which,
    title,
    hotkey,
    count: units.filter((unit) => isOf(unit, which, me)).length,
  });
  return [
    choice('all', 'All', 'A'),
    choice('held', 'Held', 'H'),
    choice('mine', 'Yours', 'Y'),
    ...STEPS.map(({ id }, i) => choice(id, stepTitle(id), String((i + 1) % 10))).filter(({ count }) => count > 0),
  ];
}

/** A rank of ten with those of its units that are asked for; ranks of which none is are left out. */
export interface Rank {
  /** From 1. */
  readonly number: number;
  readonly units: readonly LineUnit[];
  readonly isWhole: boolean;
}

const RANK = 10;

export function ranksOf(units: readonly LineUnit[], which: Which, me: string): readonly Rank[] {
  return Array.from({ length: Math.ceil(units.length / RANK) }, (_, i) => {
    const all = units.slice(i * RANK, (i + 1) * RANK);
    return {
      number: i + 1,
      units: all.filter((unit) => isOf(unit, which, me)),
      isWhole: all.every(({ status }) => status === 'sealed'),
    };
  }).filter(({ units: shown }) => shown.length > 0);
}
