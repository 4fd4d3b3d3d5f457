import { Checkbox, Select } from '@mantine/core';
import { mapTitle, type DisplayMap } from '@decurio/core';
import type { KeptStandIn } from './kept-stand-in.js';
import classes from './stand-in.module.css';

export interface FaultsPanelProps {
  readonly faults: KeptStandIn['faults'];
  readonly map: DisplayMap;
  /** Displays that may be fitted instead. */
  readonly others: readonly DisplayMap[];
  readonly onChange: (faults: KeptStandIn['faults']) => void;
  readonly onFresh: () => void;
}

const ON_OFF = [
  ['brakeSwitchStuck', 'A brake switch is stuck'],
  ['throttleLive', 'The throttle drives whatever the code says'],
  ['walkFast', 'Walk assist pushes too fast'],
  ['motorDead', 'The rear one of two motors is dead'],
  ['capIgnored', 'No cap ends drive'],
  ['errorRecurs', 'An error comes back'],
  ['gaugeOfOther', 'The gauge goes by another class'],
  ['lightOut', 'The front light stays dark'],
  ['wrongPulses', 'The wheel gives twice the pulses'],
  ['otherPack', 'Another pack than its label'],
  ['menuClosesEarly', 'The menu closes early'],
] as const satisfies readonly (readonly [keyof KeptStandIn['faults'], string])[];

/** Faults that can be given to a stand-in unit. */
export function FaultsPanel({ faults, map, others, onChange, onFresh }: FaultsPanelProps) {
  const codes = map.codes.map(({ label }) => label);
  const give = (change: Partial<KeptStandIn['faults']>) => onChange({ ...faults, ...change });
  const count = Object.values(faults).filter((fault) => fault !== null && fault !== false).length;
  return (
    <details className={classes['faults']}>
      <summary>Faults{count > 0 ? `: ${count} given` : ''}</summary>
      <div>
        <Select
          label="A code that does not move"
          clearable
          value={faults.lockedCode}
          onChange={(lockedCode) => give({ lockedCode })}
          data={codes}
        />
        <Select
          label="A code that acts on nothing"
          clearable
          value={faults.deadCode}
          onChange={(deadCode) => give({ deadCode })}
          data={codes}
        />
        <Select
          label="Another display than its map"
          clearable
          value={faults.otherMapId}
          onChange={(otherMapId) => give({ otherMapId })}
          data={others.map((other) => ({ value: other.id, label: mapTitle(other) }))}
        />
        {ON_OFF.map(([fault, label]) => (
          <Checkbox
            key={fault}
            label={label}
            checked={faults[fault]}
            onChange={(event) => give({ [fault]: event.target.checked })}
          />
        ))}
        <button type="button" onClick={onFresh}>
          Take a fresh one
        </button>
      </div>
    </details>
  );
}
