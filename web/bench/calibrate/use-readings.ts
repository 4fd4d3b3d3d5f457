import { useCallback } from 'react';
import { showsMiles, type EvidenceData, type ReferenceKind, type SpeedUnit, type TrueSpeed } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import type { VisitState } from '@decurio/core';
import type { Visit } from '../use-visit.js';

/** A reading as a way to measure gives it. */
export interface NewReading {
  readonly speed: TrueSpeed;
  /** As the display said; null where nobody asked. */
  readonly shown: number | null;
  readonly instrument?: string;
  readonly offGround?: boolean;
  readonly words?: string;
}

export interface Readings {
  /** Under which a reading that is being typed is kept. */
  readonly place: string;
  /** The display's own, as it is keyed. */
  readonly unit: SpeedUnit;
  /** The true speed alone is asked for: what the display says of it does not matter here. */
  readonly isTrueOnly?: true;
  readonly add: (reference: ReferenceKind, reading: NewReading) => Promise<void>;
}

/** Keeps readings in the visit, in the unit that the display shows. */
export function useReadings(bench: BenchView, state: VisitState, visit: Visit): Readings {
  const unit: SpeedUnit = showsMiles(state.values, bench.map) ? 'mph' : 'km/h';
  const { act } = visit;
  const add = useCallback(
    async (reference: ReferenceKind, { speed, shown, instrument = '', offGround = false, words = '' }: NewReading) => {
      if (shown === null) return;
      const data: EvidenceData['speedRead'] = {
        reference,
        instrument,
        trueKmh: speed.kmh,
        uKmh: speed.uKmh,
        uCommon: speed.uCommon,
        shown,
        unit,
        offGround,
        words,
      };
      await act('speedRead', data);
    },
    [act, unit],
  );
  return { place: `speeds.${state.visitId}`, unit, add };
}
