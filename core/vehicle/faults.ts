import type { DisplayMap } from '../display/map/display-map.js';
import type { VehicleType } from '../setup/inputs/vehicle-type.js';

/** What can be wrong with a stand-in unit, so that it can be tried what Decurio makes of it. */
export interface Faults {
  /** Shown, and does not move whatever is pressed. */
  readonly lockedCode: string | null;
  /** Can be changed, and the vehicle does not obey it. */
  readonly deadCode: string | null;
  readonly brakeSwitchStuck: boolean;
  /** The wheel gives twice the pulses that the type says. */
  readonly wrongPulses: boolean;
  /** A pack of other cells than its label says. */
  readonly otherPack: boolean;
  /** A display that looks the same, of another map. */
  readonly otherRevision: DisplayMap | null;
  /** The menu closes in half the time that its map says. */
  readonly menuClosesEarly: boolean;
  /** The throttle drives whatever the codes say. */
  readonly throttleLive: boolean;
  /** Walk assist pushes twice as fast as it should. */
  readonly walkFast: boolean;
  /** The rear one of two motors is dead. */
  readonly motorDead: boolean;
  /** No mode and no code ends drive. */
  readonly capIgnored: boolean;
  /** The same error comes back. */
  readonly errorRecurs: boolean;
  /** The gauge goes by the voltage class above the pack's. */
  readonly gaugeOfOther: boolean;
  /** The front light stays dark. */
  readonly lightOut: boolean;
}

export const NO_FAULTS: Faults = {
  lockedCode: null,
  deadCode: null,
  brakeSwitchStuck: false,
  wrongPulses: false,
  otherPack: false,
  otherRevision: null,
  menuClosesEarly: false,
  throttleLive: false,
  walkFast: false,
  motorDead: false,
  capIgnored: false,
  errorRecurs: false,
  gaugeOfOther: false,
  lightOut: false,
};

/** The display as it is really fitted. */
export function fittedMap(map: DisplayMap, { lockedCode, otherRevision, menuClosesEarly }: Faults): DisplayMap {
  const fitted = otherRevision ?? map;
  const codes = fitted.codes.map((code) => (code.label === lockedCode ? { ...code, access: 'locked' as const } : code));
  if (!menuClosesEarly || fitted.menu === null) return { ...fitted, codes };
  const { idle } = fitted.menu;
  return {
    ...fitted,
    codes,
    menu: {
      ...fitted.menu,
      idle: { ...idle, browseMs: idle.browseMs / 2, editMs: idle.editMs / 2, pinMs: idle.pinMs / 2 },
    },
  };
}

/** Cells in series that are really in the pack: one class above the label where it is another pack. */
export const cellsFitted = ({ pack }: VehicleType, { otherPack }: Faults): number =>
  otherPack ? pack.cellsInSeries + Math.max(3, Math.round(pack.cellsInSeries * 0.3)) : pack.cellsInSeries;

export const pulsesFitted = ({ wheelPulses }: VehicleType, { wrongPulses }: Faults): number =>
  wrongPulses ? wheelPulses * 2 : wheelPulses;
