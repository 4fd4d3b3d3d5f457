import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { useSelector } from 'react-redux';

/** Clocks that agree to within this are taken as one: an answer takes a moment, too. */
const AGREE_MS = 30_000;
/** A round trip longer than this tells too little of when the server said it. */
const QUICK_MS = 5_000;

export interface ClockState {
  /** What is added to this device's clock to get the server's, ms; 0 where they agree. */
  readonly addMs: number;
}

export const clock = createSlice({
  name: 'clock',
  initialState: { addMs: 0 } as ClockState,
  reducers: {
    heard: (state, { payload }: PayloadAction<number>) => {
      state.addMs = payload;
    },
  },
});

/**
 * What to add to this device's clock by an answer of the server.
 * @returns null where the answer came too slowly to tell
 */
export function clockDifference({
  sentMs,
  heardMs,
  serverMs,
}: {
  readonly sentMs: number;
  readonly heardMs: number;
  readonly serverMs: number;
}): number | null {
  if (!Number.isFinite(serverMs) || heardMs < sentMs || heardMs - sentMs > QUICK_MS) return null;
  const addMs = Math.round(serverMs - (sentMs + heardMs) / 2);
  return Math.abs(addMs) < AGREE_MS ? 0 : addMs;
}

/** Now by the server's clock, as far as this device knows it, for what goes into the record. */
export const recordTime = ({ addMs }: ClockState, nowMs = Date.now()): string => new Date(nowMs + addMs).toISOString();

export const useClock = (): ClockState => useSelector((state: { clock: ClockState }) => state.clock);
