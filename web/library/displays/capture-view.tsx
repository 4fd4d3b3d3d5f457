import { Checkbox, NumberInput, SegmentedControl, TextInput } from '@mantine/core';
import { useEffect, useState } from 'react';
import { draftMap, parseDisplayMap, type DisplayMap } from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import { Notice } from '../../ui/notice.js';
import { captured, NO_CODE, NOTHING_CAPTURED, type Handling, type Seen } from './captured.js';
import classes from './displays.module.css';

export interface CaptureViewProps {
  readonly onDraft: (map: DisplayMap) => void;
  readonly onCancel: () => void;
}

/** An unknown display, walked once: how it is handled, how long it stays open by stopwatch, and every code as it comes. */
export function CaptureView({ onDraft, onCancel }: CaptureViewProps) {
  const draft = useDraft('capture', NOTHING_CAPTURED);
  const { idleMs } = draft.value;
  // What was begun under an earlier release has fewer fields.
  const how: Handling = { ...NOTHING_CAPTURED.how, ...draft.value.how };
  const seen = draft.value.seen.map((code): Seen => ({ ...NO_CODE, ...code }));
  const [problems, setProblems] = useState<readonly string[]>([]);
  const set = <K extends keyof Handling>(field: K, value: Handling[K]) =>
    draft.change({ how: { ...how, [field]: value } });
  const setCode = (i: number, change: Partial<Seen>) => {
    const next = seen.map((code, at) => (at === i ? { ...code, ...change } : code));
    draft.change({ seen: next.at(-1)?.label === '' ? next : [...next, NO_CODE] });
  };
  const finish = () => {
    const outcome = captured(how, idleMs, seen);
    if (typeof outcome === 'string') return setProblems([outcome]);
    const parsed = parseDisplayMap(draftMap(outcome));
    if (!parsed.ok) return setProblems(parsed.problems.map((p) => p.message));
    draft.forget();
    onDraft(parsed.map);
  };
  const text = (label: string, field: keyof Handling, description?: string) => (
    <TextInput
      label={label}
      {...(description ? { description } : {})}
      value={String(how[field])}
      onChange={(e) => set(field, e.target.value as never)}
      autoComplete="off"
      data-scan-guard
    />
  );
  return (
    <>
      <h1>Capture a live unit</h1>
      <Begun draft={draft} />
      <Notice
        kind="care"
        says="Driven wheel clear of the ground, hands and sleeves clear. On many displays one long press starts the motor. Put every value back as it was before going on."
      />
      <h2 className="cap">The display</h2>
      <div className={classes['fields']}>
        {text('Name', 'name')}
        {text('Revision', 'revision')}
        {text('Serial of this unit', 'serial')}
        {text('Firmware, if shown', 'firmware')}
      </div>
      <h2 className="cap">How it is handled</h2>
      <div className={classes['fields']}>
        {text('Keys, as printed', 'keys', 'separated by commas')}
        {text('Opens: hold', 'openKeys')}
        <NumberInput
          label="for seconds"
          value={how.openSeconds}
          onChange={(v) => set('openSeconds', Number(v))}
          min={0.2}
          max={20}
          decimalScale={1}
        />
        {text('Closes: hold', 'closeKeys')}
        <NumberInput
          label="for seconds"
          value={how.closeSeconds}
          onChange={(v) => set('closeSeconds', Number(v))}
          min={0.2}
          max={20}
          decimalScale={1}
        />
      </div>
      <div className={classes['fields']}>
        {text('Next code', 'next')}
        {text('Back', 'previous', 'empty where there is no way back')}
        {text('Value up', 'up')}
        {text('Value down', 'down')}
        {how.style === 'focus' && text('Name or value', 'select')}
        {(how.style === 'enter' || how.style === 'digits') && text('Begins an edit', 'select')}
        {how.style === 'digits' && text('Next digit', 'walk')}
        {(how.style === 'enter' || how.style === 'digits') && text('Ends an edit', 'end')}
      </div>
      <div className={classes['fields']}>
        {text('Other page: hold', 'turnKeys', 'empty where there is one list')}
        {text('Ride mode: tap', 'modeKey', 'where each has a list of its own')}
      </div>
      <div className={classes['acts']}>
        <Choice
          label="Values change"
          value={how.style}
          onChange={(v) => set('style', v)}
          data={[
            ['live', 'at once'],
            ['focus', 'after a key'],
            ['enter', 'in an edit'],
            ['digits', 'digit by digit'],
          ]}
        />
        <Choice
          label="After the last code"
          value={how.afterLast}
          onChange={(v) => set('afterLast', v)}
          data={[
            ['wrap', 'it starts again'],
            ['leave', 'it closes'],
            ['stop', 'it stays'],
          ]}
        />
        <Choice
          label="A value is stored"
          value={how.store}
          onChange={(v) => set('store', v)}
          data={[
            ['change', 'at once'],
            ['move', 'on moving on'],
            ['endOfEdit', 'with the key'],
            ['leave', 'on leaving'],
          ]}
        />
      </div>
      <h2 className="cap">How long it stays open</h2>
      <Stopwatch ms={idleMs} onMs={(idleMs) => draft.change({ idleMs })} />
      <Checkbox
        label="A change that was not stored is there again after it closed by itself"
        checked={how.keepsUnstored}
        onChange={(e) => set('keepsUnstored', e.target.checked)}
      />
      <h2 className="cap">Every code, in the order of the menu</h2>
      <table className={classes['captured']} aria-label="Codes seen">
        <thead>
          <tr className="cap">
            {COLUMN_HEADS.map((title) => (
              <th key={title} scope="col">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {seen.map((code, i) => (
            <tr key={i}>
              {(['label', 'found', 'min', 'max'] as const).map((field) => (
                <td key={field}>
                  <TextInput
                    aria-label={`${COLUMNS[field]} of entry ${i + 1}`}
                    value={code[field]}
                    onChange={(e) => setCode(i, { [field]: e.target.value })}
                    maxLength={12}
                    autoComplete="off"
                    data-scan-guard
                  />
                </td>
              ))}
              <td>
                <Checkbox
                  aria-label={`Entry ${i + 1} does not move`}
                  checked={code.isLocked}
                  onChange={(e) => setCode(i, { isLocked: e.target.checked })}
                />
              </td>
              <td>
                <Checkbox
                  aria-label={`Entry ${i + 1} goes round`}
                  checked={code.wraps}
                  onChange={(e) => setCode(i, { wraps: e.target.checked })}
                />
              </td>
              {(['words', 'list'] as const).map((field) => (
                <td key={field}>
                  <TextInput
                    aria-label={`${COLUMNS[field]} of entry ${i + 1}`}
                    value={code[field]}
                    onChange={(e) => setCode(i, { [field]: e.target.value })}
                    maxLength={field === 'words' ? 120 : 30}
                    autoComplete="off"
                    data-scan-guard
                  />
                </td>
              ))}
              <td>
                <TextInput
                  aria-label={`Note on entry ${i + 1}`}
                  value={code.note}
                  onChange={(e) => setCode(i, { note: e.target.value })}
                  maxLength={200}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {problems.length > 0 && <Notice kind="stop" says={problems.slice(0, 4).join(' ')} />}
      <div className={classes['acts']}>
        <ActButton look="main" onAct={finish}>
          Make the draft
        </ActButton>
        <ActButton onAct={onCancel}>Leave it</ActButton>
      </div>
    </>
  );
}

const COLUMNS = {
  label: 'Name',
  found: 'Value',
  min: 'Lowest',
  max: 'Highest',
  words: 'Words',
  list: 'Page or mode',
} as const;
const COLUMN_HEADS = [
  'Shows',
  'Value',
  'Lowest',
  'Highest',
  'Does not move',
  'Goes round',
  'Words, in order',
  'Page or mode',
  'Note',
];

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly onChange: (value: T) => void;
  readonly data: readonly (readonly [T, string])[];
}

const Choice = <T extends string>({ label, value, onChange, data }: ChoiceProps<T>) => (
  <div role="group" aria-label={label}>
    <p className="soft">{label}</p>
    <SegmentedControl
      value={value}
      onChange={(v) => onChange(v as T)}
      data={data.map(([v, title]) => ({ value: v, label: title }))}
    />
  </div>
);

/** Pressed with the last press on the display, and again when its menu closes. */
function Stopwatch({ ms, onMs }: { readonly ms: number | null; readonly onMs: (ms: number) => void }) {
  const [since, setSince] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (since === null) return;
    const timer = setInterval(() => setNow(performance.now()), 100);
    return () => clearInterval(timer);
  }, [since]);
  const shown = since === null ? ms : now - since;
  return (
    <div className={classes['watch']}>
      <ActButton
        onAct={() => {
          if (since === null) {
            setNow(performance.now());
            setSince(performance.now());
          } else {
            onMs(performance.now() - since);
            setSince(null);
          }
        }}
      >
        {since === null ? 'Last press: start' : 'It closed: stop'}
      </ActButton>
      <span aria-live="off">{shown === null ? 'not measured' : `${(Math.max(0, shown) / 1000).toFixed(1)} s`}</span>
    </div>
  );
}
