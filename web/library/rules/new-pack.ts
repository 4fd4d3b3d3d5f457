import type { RulePack, VehicleClass } from '@decurio/core';

/** A class nobody has written yet. */
export const NEW_CLASS = {
  id: '',
  title: '',
  kind: 'bike',
  regime: 'set',
  limit: null,
  ratedPowerW: null,
  powerBasis: 'rated',
  throttle: 'none',
  throttleTo: null,
  startAid: null,
  walk: 'allowed',
  walkTo: null,
  liveStart: 'allowed',
  walkingMode: null,
  settingsOutOfReach: false,
  needsSpeedometer: false,
  endSpeedMeasured: true,
  tolerance: 0,
  labelFields: [],
  ageNote: '',
  source: '',
  note: '',
  checked: null,
} as const satisfies VehicleClass;

export const NEW_PACK: RulePack = { format: 'decurio-rule-pack/2', id: '', name: '', place: '', classes: [NEW_CLASS] };
