/** Numbers that look random and are the same for the same seed. */
export interface Seeded {
  /** Even between 0 and 1. */
  readonly uniform: () => number;
  /** Mean 0, standard deviation 1. */
  readonly normal: () => number;
}

export function seeded(seed: number): Seeded {
  let state = (seed * 2_654_435_761) >>> 0;
  const uniform = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t ^= t + Math.imul(t ^ (t >>> 7), 61 | t);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
  return { uniform, normal: () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform()) };
}
