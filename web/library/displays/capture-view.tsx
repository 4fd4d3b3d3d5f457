import { Checkbox, NumberInput, SegmentedControl, TextInput } from '@mantine/core';
import { useEffect, useState } from 'react';
import {
  draftMap,
  hold,
  parseDisplayMap,
  tap,
  type Capture,
  type CapturedCode,
  type DisplayMap,
  type EditRules,
} from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import { Notice } from '../../ui/notice.js';
import classes from './displays.module.css';

export interface CaptureViewProps {
  readonly onDraft: (map: DisplayMap) => void;
  readonly onCancel: () => void;
}

interface Handling {
  readonly name: string;
  readonly revision: string;
  readonly serial: string;
  readonly firmware: string;
  readonly keys: string;
  readonly openKeys: string;
  readonly openSeconds: number;
  readonly closeKeys: string;
  readonly closeSeconds: number;
  readonly next: string;
  readonly previous: string;
  readonly afterLast: 'wrap' | 'leave' | 'stop';
  readonly style: 'live' | 'focus';
  readonly select: string;
  readonly up: string;
  readonly down: string;
  readonly store: 'change' | 'move' | 'endOfEdit' | 'leave';
  readonly keepsUnstored: boolean;
}

const EMPTY: Handling = {
  name: '',
  revision: '',
  serial: '',
  firmware: '',
  keys: 'set, +, −',
  openKeys: '+ and −',
  openSeconds: 2,
  closeKeys: 'set',
  closeSeconds: 2,
  next: '+',
  previous: '−',
  afterLast: 'wrap',
  style: 'focus',
  select: 'set',
  up: '+',
  down: '−',
  store: 'endOfEdit',
  keepsUnstored: false,
};

interface Seen {
  readonly label: string;
  readonly found: string;
  readonly min: string;
  readonly max: string;
  readonly isLocked: boolean;
  readonly wraps: boolean;
  readonly note: string;
}

const NO_CODE: Seen = { label: '', found: '', min: '', max: '', isLocked: false, wraps: false, note: '' };

const NOTHING_CAPTURED = {
  how: EMPTY,
  idleMs: null as number | null,
  seen: [NO_CODE] as readonly Seen[],
};

/** An unknown display, walked once: how it is handled, how long it stays open by stopwatch, and every code as it comes. */
export function CaptureView({ onDraft, onCancel }: CaptureViewProps) {
  const draft = useDraft('capture', NOTHING_CAPTURED);
  const { how, idleMs, seen } = draft.value;
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
      <div className={classes['row']}>
        {text('Name', 'name')}
        {text('Revision', 'revision')}
        {text('Serial of this unit', 'serial')}
        {text('Firmware, if shown', 'firmware')}
      </div>
      <h2 className="cap">How it is handled</h2>
      <div className={classes['row']}>
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
      <div className={classes['row']}>
        {text('Next code', 'next')}
        {text('Back', 'previous', 'empty where there is no way back')}
        {text('Value up', 'up')}
        {text('Value down', 'down')}
        {how.style === 'focus' && text('Moves between name and value', 'select')}
      </div>
      <div className={classes['acts']}>
        <Choice
          label="Values change"
          value={how.style}
          onChange={(v) => set('style', v)}
          data={[
            ['live', 'at once'],
            ['focus', 'after a key'],
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
            {['Shows', 'Value', 'Lowest', 'Highest', 'Does not move', 'Goes round', 'Note'].map((title) => (
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

const COLUMNS = { label: 'Name', found: 'Value', min: 'Lowest', max: 'Highest' } as const;

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

/** What was noted, or a sentence that says what is missing. */
function captured(how: Handling, idleMs: number | null, seen: readonly Seen[]): Capture | string {
  const keys = how.keys
    .split(',')
    .map((label) => label.trim())
    .filter((label) => label !== '')
    .map((label, i) => ({ id: `k${i + 1}`, label }));
  const named = (words: string): string[] =>
    words
      .split(/ and |\+(?=\w)|,/)
      .map((w) => w.trim())
      .filter((w) => w !== '')
      .map((w) => keys.find((key) => key.label === w)?.id ?? w);
  if (how.name.trim() === '' || how.serial.trim() === '') return 'Name the display, and the unit it was seen on.';
  if (idleMs === null) return 'Measure with the stopwatch how long the menu stays open without a press.';
  const codes = seen.filter((code) => code.label.trim() !== '');
  if (codes.length === 0) return 'Note at least one code.';
  const numbers = codes.map((code) =>
    [code.found, code.min || code.found, code.max || code.found].map((text) => Number(text.replace(',', '.'))),
  );
  const bad = codes.find((code, i) => code.found.trim() === '' || numbers[i]?.some((n) => !Number.isFinite(n)));
  if (bad) return `Type the digits that ${bad.label} shows, and its lowest and highest value.`;
  const one = (words: string) => tap(named(words)[0] ?? '');
  const steppers = { up: one(how.up), down: one(how.down) };
  const edit: EditRules =
    how.style === 'live' ? { style: 'live', ...steppers } : { style: 'focus', select: one(how.select), ...steppers };
  const [first = ''] = keys.map((key) => key.id);
  return {
    name: how.name.trim(),
    revision: how.revision.trim() || '?',
    serial: how.serial.trim(),
    firmware: how.firmware.trim() || 'not shown',
    keys,
    power: { first: 'Switch the pack on.', on: hold(1500, first), off: hold(3000, first) },
    open: hold(how.openSeconds * 1000, ...named(how.openKeys)),
    close: how.closeKeys.trim() === '' ? null : hold(how.closeSeconds * 1000, ...named(how.closeKeys)),
    next: one(how.next),
    previous: how.previous.trim() === '' ? null : one(how.previous),
    afterLast: how.afterLast,
    edit,
    store: how.store,
    idleMs,
    keepsUnstored: how.keepsUnstored,
    codes: codes.map((code, i): CapturedCode => {
      const [found = 0, min = 0, max = 0] = numbers[i] ?? [];
      const decimals = Math.max(
        ...[code.found, code.min, code.max].map((text) => (text.replace(',', '.').split('.')[1] ?? '').length),
      );
      return {
        label: code.label.trim(),
        found,
        min,
        max,
        decimals: Math.min(2, decimals),
        isLocked: code.isLocked,
        wraps: code.wraps,
        note: code.note.trim(),
      };
    }),
  };
}
