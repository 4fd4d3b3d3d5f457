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
        <Checkbox
          label="A brake switch is stuck"
          checked={faults.brakeSwitchStuck}
          onChange={(e) => give({ brakeSwitchStuck: e.target.checked })}
        />
        <Checkbox
          label="The wheel gives twice the pulses"
          checked={faults.wrongPulses}
          onChange={(e) => give({ wrongPulses: e.target.checked })}
        />
        <Checkbox
          label="Another pack than its label"
          checked={faults.otherPack}
          onChange={(e) => give({ otherPack: e.target.checked })}
        />
        <Checkbox
          label="The menu closes early"
          checked={faults.menuClosesEarly}
          onChange={(e) => give({ menuClosesEarly: e.target.checked })}
        />
        <button type="button" onClick={onFresh}>
          Take a fresh one
        </button>
      </div>
    </details>
  );
}
