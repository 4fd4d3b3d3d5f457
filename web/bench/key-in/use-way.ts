import { useState } from 'react';
import { isSpoken, setSpoken } from '../../ui/speak.js';

export const WAYS = { press: 'Press by press', code: 'Code by code', paced: 'Paced' } as const;
export type Way = keyof typeof WAYS;

export interface WayOfKeying {
  readonly way: Way;
  readonly setWay: (way: Way) => void;
  readonly nextWay: () => void;
  readonly spoken: boolean;
  readonly toggleSpoken: () => void;
  /** After each code on to the next of the identical units on one's stands. */
  readonly inTurn: boolean;
  readonly toggleInTurn: () => void;
}

const KEPT = { way: 'decurio.way', inTurn: 'decurio.inTurn' };
const ORDER = Object.keys(WAYS) as Way[];

/** How this person keys, as chosen on this device. */
export function useWay(): WayOfKeying {
  const [way, choose] = useState<Way>(() => ORDER.find((each) => each === localStorage.getItem(KEPT.way)) ?? 'press');
  const [spoken, speakIt] = useState(isSpoken);
  const [inTurn, turn] = useState(() => localStorage.getItem(KEPT.inTurn) === 'yes');
  const setWay = (next: Way) => {
    localStorage.setItem(KEPT.way, next);
    choose(next);
  };
  return {
    way,
    setWay,
    nextWay: () => setWay(ORDER[(ORDER.indexOf(way) + 1) % ORDER.length] ?? 'press'),
    spoken,
    toggleSpoken: () => {
      setSpoken(!spoken);
      speakIt(!spoken);
    },
    inTurn,
    toggleInTurn: () => {
      localStorage.setItem(KEPT.inTurn, inTurn ? 'no' : 'yes');
      turn(!inTurn);
    },
  };
}
