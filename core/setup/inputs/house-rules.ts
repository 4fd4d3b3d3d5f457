/** The answers to every question on which good practitioners disagree. See `HOUSE_CHOICES` for the questions, defaults and reasons. */
export interface Choices {
  readonly standstillStart: 'rolling' | 'live' | 'pedalFirst';
  readonly walk: 'off' | 'onForCargo' | 'on';
  readonly cruise: 'off' | 'on';
  readonly wheelValue: 'marked' | 'measured' | 'fitted';
  readonly wheelPulses: 'counted' | 'trim';
  readonly shownSpeed: 'neverUnder' | 'nearest';
  /** Volts per cell that the cut-off keeps above the cell's floor; 0 runs to the floor. */
  readonly cutoffMarginVPerCell: number;
  readonly packUse: 'fourFifths' | 'all';
  readonly batteryShown: 'percent' | 'volts';
  /** Charge from which the vehicle limps home, percent; 0 for never. */
  readonly limpFromPercent: number;
  /** Minutes of standing still before the display switches itself off; 0 is never. */
  readonly autoOffMin: number;
  readonly brightness: 'full' | 'middle';
  readonly assistLevels: number;
  readonly zeroLevel: 'offered' | 'notOffered';
  readonly assistStart: 'gentle' | 'middle' | 'strong';
  readonly startRamp: 'gentle' | 'middle' | 'strong';
  readonly motorBraking: 'none' | 'weak' | 'strong';
  readonly turbo: 'off' | 'whereCapHolds';
  readonly throttleScope: 'limited' | 'full';
  readonly odometer: 'never' | 'onHandOver';
  readonly uncapped: 'never' | 'inWriting';
  /** Which units are run against a reference speed. */
  readonly runs: 'sample' | 'every';
  readonly readAsFound: 'sample' | 'every';
  readonly photos: 'none' | 'checkIn' | 'both';
  readonly unplugCheck: 'whereKept' | 'never';
  readonly reader: 'same' | 'other';
  /** What is proved beyond what no unit leaves without. */
  readonly proofs: 'sample' | 'every';
  readonly prover: 'same' | 'other';
  /** Whether a unit may leave with a test left out. */
  readonly unproved: 'never' | 'inWriting';
  readonly signers: 'one' | 'two';
  readonly units: 'kmh' | 'mph';
  /** What opens the menu. */
  readonly pin: PinPolicy;
  /** What a rider types to ride; never the digits that open the menu. */
  readonly startPin: PinPolicy;
}

export type PinPolicy = 'asFound' | 'perOrder' | 'perUnit';

export type Choice = keyof Choices;

/** The shop's or a customer's choices where good practitioners disagree. */
export interface HouseRules {
  readonly format: 'decurio-house-rules/4';
  readonly id: string;
  readonly name: string;
  /** The customer whose orders take these where none are named; null for the house's own. */
  readonly customer: string | null;
  readonly choices: Choices;
}
