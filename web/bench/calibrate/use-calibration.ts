import { useMemo } from 'react';
import { calibrationOf, type CalibrationOf, type DisplayMap, type VisitState } from '@decurio/core';

/** What the visit's readings amount to, worked out anew only where they moved. */
export const useCalibration = (state: VisitState, map: DisplayMap): CalibrationOf | null =>
  useMemo(() => calibrationOf(state, map), [state, map]);
