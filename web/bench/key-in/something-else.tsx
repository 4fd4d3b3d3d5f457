import { Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import { findCode, formatRaw, codeTitle, meaningOf, parseTyped, type DisplayMap } from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import type { KeyRun } from './use-key-run.js';
import { Dialog } from '../../ui/dialog.js';
import classes from '../panel.module.css';

export interface SomethingElseProps {
  readonly map: DisplayMap;
  readonly run: KeyRun;
  /** The code that the plan expects on the glass. */
  readonly expected: string;
  readonly onClose: () => void;
}

/** Takes what the glass really shows; the plan is made anew from there. */
export function SomethingElse({ map, run, expected, onClose }: SomethingElseProps) {
  const [label, setLabel] = useState(expected);
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const code = findCode(map, label);
  const parsed = code ? parseTyped(code, typed) : null;
  const tell = (how: (label: string, raw: number) => void) => {
    if (!parsed) return;
    if (!parsed.ok) return setProblem(parsed.problem.message);
    how(label, parsed.value);
    onClose();
  };
  return (
    <Dialog onClose={onClose} title="What does the glass show?">
      <form
        className={classes['stack']}
        onSubmit={(event) => {
          event.preventDefault();
          tell(run.showsElse);
        }}
      >
        <Select
          label="Code"
          allowDeselect={false}
          searchable
          value={label}
          onChange={(value) => setLabel(value ?? expected)}
          data={map.codes.map((c) => ({ value: c.label, label: `${c.label}  ${codeTitle(c)}` }))}
        />
        <TextInput
          label="Value, as shown"
          value={typed}
          onChange={(e) => {
            setTyped(e.target.value);
            setProblem(null);
          }}
          inputMode={code?.shows ? 'text' : 'decimal'}
          data-autofocus
          data-scan-guard={code?.shows ? 'words' : true}
          autoComplete="off"
          error={problem}
          description={
            code && parsed?.ok
              ? `${formatRaw(code, parsed.value)} means ${meaningOf(code, parsed.value)}`
              : code?.shows
                ? `As it stands there: ${code.shows.map(({ text }) => text).join(', ')}.`
                : 'The digits alone.'
          }
        />
        <div className={classes['acts']}>
          <ActButton type="submit" look="main" hotkey="Enter" onAct={() => undefined}>
            Go on from here
          </ActButton>
          <ActButton look="care" onAct={() => tell(run.doesNotChange)}>
            It will not change
          </ActButton>
        </div>
      </form>
    </Dialog>
  );
}
