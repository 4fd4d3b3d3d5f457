import { TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Once } from '@decurio/core';
import { nowInHouse } from '../../ui/house-zone.js';
import { whenDay } from '../../ui/when.js';
import classes from './people-page.module.css';

interface OnceListProps {
  readonly label: string;
  readonly value: readonly Once[];
  readonly onChange: (all: readonly Once[]) => void;
}

/** Stretches on their own days, such as an absence; what is past is not shown, and goes with the next one that is added. */
export function OnceList({ label, value, onChange }: OnceListProps) {
  const [typed, setTyped] = useState({ from: '', to: '', why: '' });
  const now = nowInHouse();
  const coming = value.filter(({ to }) => to >= now);
  const isWhole = typed.from !== '' && typed.to > typed.from;
  return (
    <details className={classes['once']}>
      <summary>
        {label}
        {coming.length > 0 && ` (${coming.length})`}
      </summary>
      <ul>
        {coming.map((each) => (
          <li key={`${each.from} ${each.to}`}>
            {whenDay(each.from)} to {whenDay(each.to)} {each.why}{' '}
            <button type="button" onClick={() => onChange(coming.filter((one) => one !== each))}>
              Take out
            </button>
          </li>
        ))}
      </ul>
      <div className={classes['onceNew']}>
        <TextInput
          type="datetime-local"
          label="From"
          value={typed.from}
          data-scan-guard="words"
          onChange={(e) => setTyped({ ...typed, from: e.target.value })}
        />
        <TextInput
          type="datetime-local"
          label="To"
          value={typed.to}
          data-scan-guard="words"
          error={typed.to !== '' && typed.to <= typed.from ? 'Ends before it begins.' : null}
          onChange={(e) => setTyped({ ...typed, to: e.target.value })}
        />
        <TextInput
          label="Why"
          value={typed.why}
          maxLength={100}
          data-scan-guard="words"
          onChange={(e) => setTyped({ ...typed, why: e.target.value })}
        />
        <button
          type="button"
          disabled={!isWhole}
          onClick={() => {
            onChange([...coming, { from: typed.from.slice(0, 16), to: typed.to.slice(0, 16), why: typed.why }]);
            setTyped({ from: '', to: '', why: '' });
          }}
        >
          Add
        </button>
      </div>
    </details>
  );
}
