/** A tyre by its ISO 5775 marking, mm. */
export interface TyreMarking {
  readonly widthMm: number;
  readonly beadSeatMm: number;
}

/**
 * Reads an ISO 5775 marking. Undefined for others: a scooter's `10 x 2.5` is none.
 * @example
 * parseTyreMarking('47-559'); // { widthMm: 47, beadSeatMm: 559 }
 * parseTyreMarking('10 x 2.5'); // undefined
 */
export function parseTyreMarking(marking: string): TyreMarking | undefined {
  const [, width, bead] = /^\s*(\d{2,3})\s*-\s*(\d{3})\s*$/.exec(marking) ?? [];
  if (width === undefined || bead === undefined) return undefined;
  const tyre = { widthMm: Number(width), beadSeatMm: Number(bead) };
  return tyre.widthMm >= 18 && tyre.widthMm <= 130 && tyre.beadSeatMm >= 200 && tyre.beadSeatMm <= 700
    ? tyre
    : undefined;
}

/** A first guess at how far a wheel rolls in a turn, with its 95 % range, mm. */
export interface RollOutGuess {
  readonly mm: number;
  readonly fromMm: number;
  readonly toMm: number;
}

/**
 * pi * (bead seat diameter + 2 * section width). The 95 % range is -3 / +2 %; for bead seats under 500 mm or widths
 * over 65 mm -6 / +2 %. A loaded roll-out goes before it.
 * @example
 * Math.round(rollOutGuess({ widthMm: 47, beadSeatMm: 559 }).mm); // 2051
 */
export function rollOutGuess({ widthMm, beadSeatMm }: TyreMarking): RollOutGuess {
  const mm = Math.PI * (beadSeatMm + 2 * widthMm);
  const below = beadSeatMm < 500 || widthMm > 65 ? 0.06 : 0.03;
  return { mm, fromMm: mm * (1 - below), toMm: mm * 1.02 };
}
