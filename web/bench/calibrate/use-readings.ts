import { useCallback } from 'react';
import { showsMiles, type EvidenceData, type ReferenceKind, type SpeedUnit } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import type { VisitState } from '@decurio/core';
import type { NewReading, Readings } from '../../measuring/readings.js';
import type { Visit } from '../use-visit.js';

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
