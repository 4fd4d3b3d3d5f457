const KEPT = 'decurio.roller';

/** The roller that stands in this bay, as it was typed last. */
export interface Roller {
  readonly acrossMm: number;
  /** Sure to so much either way. */
  readonly withinMm: number;
}

export function keptRoller(): Roller {
  const [acrossMm, withinMm] = (localStorage.getItem(KEPT) ?? '').split(' ').map(Number);
  return { acrossMm: acrossMm || 105, withinMm: withinMm || 0.5 };
}

export const keepRoller = ({ acrossMm, withinMm }: Roller): void =>
  localStorage.setItem(KEPT, `${acrossMm} ${withinMm}`);
