import { TextInput } from '@mantine/core';
import { useRef, useState, type FormEvent } from 'react';
import type { Observation, ProvingTest, Watch } from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import { useDraft } from '../../drafts/use-draft.js';
import { FigureField } from '../../ui/figure-field.js';
import { mayAct } from '../../ui/keys/bounce.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import { KeyCap } from '../../ui/keys/key-cap.js';
import classes from './prove.module.css';
import panel from '../panel.module.css';

export interface WatchProps<K extends Watch['kind']> {
  readonly test: ProvingTest;
  readonly watch: Watch & { readonly kind: K };
  readonly place: string;
  readonly onSeen: (seen: Observation) => void;
}

/** What happened, as keys 1 to 4. None of them says whether that is good. */
export function OutcomeKeys({ test, watch, onSeen }: Omit<WatchProps<'outcome'>, 'place'>) {
  const choose = (i: number) => {
    const outcome = watch.outcomes[i];
    if (outcome) onSeen({ kind: 'outcome', outcome: outcome.id });
  };
  useHotkeys(Object.fromEntries(watch.outcomes.map((_, i) => [String(i + 1), () => choose(i)])), { shown: test.id });
  return (
    <ul className={classes['outcomes']} aria-label="What happened">
      {watch.outcomes.map(({ id, says }, i) => (
        <li key={id}>
          <button type="button" onClick={() => mayAct(String(i + 1)) && choose(i)}>
            <KeyCap of={String(i + 1)} />
            {says}
          </button>
        </li>
      ))}
    </ul>
  );
}

const COUNTED = {
  seconds: { label: 'Seconds', unit: 's' },
  turns: { label: 'Turns', unit: '' },
} as const;

export function CountField({ watch, place, onSeen }: WatchProps<'seconds' | 'turns'>) {
  const draft = useDraft(place, { figure: '' as number | '' });
  const { figure } = draft.value;
  const [isMissing, setMissing] = useState(false);
  const { label, unit } = COUNTED[watch.kind];
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (figure === '') return setMissing(true);
    draft.forget();
    onSeen({ kind: watch.kind, figure });
  };
  return (
    <form className={classes['entry']} onSubmit={add}>
      <FigureField
        label={label}
        unit={unit}
        value={figure}
        onChange={(figure) => draft.change({ figure })}
        error={isMissing && figure === '' ? 'Type what was counted; a tenth is fine.' : null}
        autoFocus
        className={classes['figure']}
      />
      <Keep />
    </form>
  );
}

export function MetresFields({ place, onSeen }: WatchProps<'metres'>) {
  const draft = useDraft(place, { metres: '' as number | '', beside: '' as number | '' });
  const { metres, beside } = draft.value;
  const second = useRef<HTMLInputElement>(null);
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (metres === '' || beside === '') return second.current?.focus();
    draft.forget();
    onSeen({ kind: 'metres', metres, besideMetres: beside });
  };
  return (
    <form className={classes['entry']} onSubmit={add}>
      <FigureField
        label="This one"
        unit="m"
        value={metres}
        onChange={(metres) => draft.change({ metres })}
        autoFocus
        className={classes['figure']}
      />
      <FigureField
        label="One as delivered"
        unit="m"
        value={beside}
        onChange={(beside) => draft.change({ beside })}
        inputRef={second}
        className={classes['figure']}
      />
      <Keep />
    </form>
  );
}

export function GaugeFields({ watch, place, onSeen }: WatchProps<'gauge'>) {
  const draft = useDraft(place, { meterV: '' as number | '', shown: '' as number | '' });
  const { meterV, shown } = draft.value;
  const second = useRef<HTMLInputElement>(null);
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (meterV === '' || shown === '') return second.current?.focus();
    draft.forget();
    onSeen({ kind: 'gauge', meterV, shown });
  };
  return (
    <form className={classes['entry']} onSubmit={add}>
      <FigureField
        label="By meter"
        unit="V"
        value={meterV}
        onChange={(meterV) => draft.change({ meterV })}
        autoFocus
        className={classes['figure']}
      />
      <FigureField
        label="On the glass"
        unit={watch.as === 'volts' ? 'V' : '%'}
        value={shown}
        onChange={(shown) => draft.change({ shown })}
        inputRef={second}
        hint={watch.as === 'volts' ? undefined : 'Bars: share of those lit'}
        className={classes['figure']}
      />
      <Keep />
    </form>
  );
}

export function ErrorsField({ place, onSeen }: WatchProps<'errors'>) {
  const draft = useDraft(place, { text: '' });
  const { text } = draft.value;
  const none = () => onSeen({ kind: 'errors', shown: [] });
  const shown = text.split(/[\s,;]+/).filter((each) => each !== '');
  useHotkeys({ '1': shown.length === 0 ? none : undefined });
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (shown.length === 0) return;
    draft.forget();
    onSeen({ kind: 'errors', shown });
  };
  return (
    <form className={classes['entry']} onSubmit={add}>
      <ul className={classes['outcomes']} aria-label="What is shown">
        <li>
          <button type="button" disabled={shown.length > 0} onClick={none}>
            <KeyCap of="1" />
            None is shown
          </button>
        </li>
      </ul>
      <TextInput
        label="Or each as it stands, with spaces between"
        value={text}
        onChange={(event) => draft.change({ text: event.target.value })}
        maxLength={120}
        data-scan-guard="words"
      />
      <Keep disabled={shown.length === 0} />
    </form>
  );
}

const Keep = ({ disabled = false }: { readonly disabled?: boolean }) => (
  <div className={panel['acts']}>
    <ActButton type="submit" hotkey="Enter" disabled={disabled} onAct={() => undefined}>
      That is what was read
    </ActButton>
  </div>
);
