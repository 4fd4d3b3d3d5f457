/** The shop's or a customer's choices where good practitioners disagree. */
export interface HouseRules {
  readonly format: 'decurio-house-rules/1';
  readonly id: string;
  readonly name: string;
  readonly choices: {
    readonly standstillStart: 'rolling' | 'live' | 'pedalFirst';
    readonly walk: 'on' | 'off';
    readonly cruise: 'on' | 'off';
    readonly assistStart: 'gentle' | 'middle' | 'strong';
    readonly assistLevels: number;
    /** Minutes of standing still before the display switches itself off; 0 is never. */
    readonly autoOffMin: number;
    readonly brightness: number;
    /** Volts per cell that the cut-off keeps above the cell's floor. */
    readonly cutoffMarginVPerCell: number;
    readonly units: 'kmh' | 'mph';
  };
}
