import { NativeSelect } from '@mantine/core';
import { ActButton } from '../../../ui/act-button.js';
import { ChoiceAt, SecondsAt, TextAt } from './written-fields.js';
import { GestureAt } from './gesture-field.js';
import type { KeysOf } from './keys-field.js';
import { listAt, type WrittenForm } from './written-form.js';
import classes from './map-form.module.css';

type Edit = 'live' | 'focus' | 'enter' | 'digits';

const STYLES: readonly { readonly value: Edit; readonly label: string }[] = [
  { value: 'live', label: 'at once' },
  { value: 'focus', label: 'once a key went to the value' },
  { value: 'enter', label: 'once an edit was begun' },
  { value: 'digits', label: 'digit by digit' },
];

/** Gestures of each way to change a value: path within the edit, what it does, and whether there need be one. */
export const EDIT_KEYS: Readonly<Record<Edit, readonly (readonly [string, string, boolean])[]>> = {
  live: [
    ['up', 'Value up', false],
    ['down', 'Value down', false],
  ],
  focus: [
    ['select', 'Name or value', false],
    ['up', 'Value up', false],
    ['down', 'Value down', false],
  ],
  enter: [
    ['begin', 'Begins', false],
    ['end', 'Ends', false],
    ['abandon', 'Leaves it as it was', true],
    ['up', 'Value up', false],
    ['down', 'Value down', false],
  ],
  digits: [
    ['begin', 'Begins', false],
    ['count', 'Digit up', false],
    ['back', 'Digit down', true],
    ['walk', 'Next digit', false],
    ['end', 'Ends', true],
  ],
};

/** What a gesture of one way is called in another. */
const LIKE: Readonly<Record<string, string>> = { up: 'count', count: 'up', down: 'back', back: 'down' };

/** Another way to change a value, with the keys that it has in common with the one before. */
function carried(edit: unknown, style: Edit): object {
  const before = (typeof edit === 'object' ? edit : null) as Readonly<Record<string, unknown>> | null;
  const kept = EDIT_KEYS[style].flatMap(([name]) => {
    const own = before?.[name] ?? before?.[LIKE[name] ?? ''];
    return own === undefined ? [] : [[name, own] as const];
  });
  return { style, ...Object.fromEntries(kept) };
}

/** How the menu is opened, moved through, changed, stored and left. */
export function MenuFields({ form, keys }: { readonly form: WrittenForm; readonly keys: readonly KeysOf[] }) {
  const style = (form.at('menu', 'edit', 'style') as Edit | undefined) ?? 'live';
  const store = form.at('menu', 'store', 'on');
  const hasPin = form.at('menu', 'pin') !== undefined;
  const gesture = (place: string, label: string, isOptional = false) => (
    <GestureAt form={form} place={['menu', place]} label={label} keys={keys} isOptional={isOptional} />
  );
  return (
    <section className={classes['part']} aria-label="Its menu">
      <h2>Its menu</h2>
      <div className={classes['row']}>
        {listAt(form, 'menu', 'opens').map((_, i) => (
          <GestureAt
            key={i}
            form={form}
            place={['menu', 'opens', i, 'gesture']}
            label={i === 0 ? 'Opens' : 'Opens also'}
            keys={keys}
          />
        ))}
        {listAt(form, 'menu', 'opens').length === 0 && (
          <GestureAt form={form} place={['menu', 'opens', 0, 'gesture']} label="Opens" keys={keys} />
        )}
        {gesture('close', 'Closes', true)}
      </div>
      <div className={classes['row']}>
        {gesture('next', 'Next entry')}
        {gesture('previous', 'Entry before', true)}
        {gesture('pick', 'Takes a way on', true)}
      </div>
      <div className={classes['row']}>
        <ChoiceAt
          form={form}
          place={['menu', 'afterLast']}
          label="After the last entry"
          options={[
            { value: 'wrap', label: 'it starts again' },
            { value: 'leave', label: 'it closes' },
            { value: 'stop', label: 'it stays' },
          ]}
        />
        <ChoiceAt
          form={form}
          place={['menu', 'values']}
          label="Past the end of a value"
          options={[
            { value: 'stop', label: 'it stops' },
            { value: 'wrap', label: 'it goes round' },
          ]}
        />
        <IdleField form={form} />
      </div>
      <NativeSelect
        label="A value is changed"
        data={[...STYLES]}
        value={style}
        onChange={({ target }) => form.put(['menu', 'edit'], carried(form.at('menu', 'edit'), target.value as Edit))}
        error={form.problem('menu', 'edit')}
      />
      <div className={classes['row']}>
        {EDIT_KEYS[style].map(([name, label, isOptional]) => (
          <GestureAt
            key={name}
            form={form}
            place={['menu', 'edit', name]}
            label={label}
            keys={keys}
            isOptional={isOptional}
          />
        ))}
      </div>
      <div className={classes['row']}>
        <RepeatFields form={form} />
      </div>
      <div className={classes['row']}>
        <ChoiceAt
          form={form}
          place={['menu', 'store', 'on']}
          label="A value is stored"
          options={[
            { value: 'change', label: 'with every change' },
            { value: 'move', label: 'on passing to another entry' },
            { value: 'endOfEdit', label: 'when the edit ends' },
            { value: 'gesture', label: 'by a gesture of its own' },
            { value: 'leave', label: 'all at once on leaving' },
          ]}
        />
        {store === 'gesture' && <GestureAt form={form} place={['menu', 'store', 'by']} label="Stores" keys={keys} />}
      </div>
      {hasPin ? (
        <fieldset className={classes['group']} aria-label="PIN">
          <legend>PIN of the menu</legend>
          <div className={classes['row']}>
            <TextAt form={form} place={['menu', 'pin', 'factory']} label="As delivered" most={8} />
            <ChoiceAt
              form={form}
              place={['menu', 'pin', 'asks']}
              label="Asked for"
              options={[
                { value: 'opening', label: 'on opening the menu' },
                { value: 'entry', label: 'at entries that it guards' },
              ]}
            />
            <ChoiceAt
              form={form}
              place={['menu', 'pin', 'wrong']}
              label="A wrong one"
              options={[
                { value: 'again', label: 'asks again' },
                { value: 'leave', label: 'closes the menu' },
                { value: 'limited', label: 'opens; guarded entries do not move' },
                { value: 'back', label: 'leads back to the entry' },
              ]}
            />
          </div>
          <div className={classes['row']}>
            <GestureAt form={form} place={['menu', 'pin', 'up']} label="Digit up" keys={keys} />
            <GestureAt form={form} place={['menu', 'pin', 'down']} label="Digit down" keys={keys} isOptional />
            <GestureAt form={form} place={['menu', 'pin', 'walk']} label="Next digit" keys={keys} />
            <GestureAt form={form} place={['menu', 'pin', 'back']} label="Digit before" keys={keys} isOptional />
            <GestureAt form={form} place={['menu', 'pin', 'enter']} label="Gives it" keys={keys} isOptional />
          </div>
          <ActButton look="care" onAct={() => form.put(['menu', 'pin'], undefined)}>
            It asks for no PIN
          </ActButton>
        </fieldset>
      ) : (
        <div>
          <ActButton onAct={() => form.put(['menu', 'pin'], { factory: '0000' })}>It asks for a PIN</ActButton>
        </div>
      )}
    </section>
  );
}

/** One time for all, or the three as they are. */
function IdleField({ form }: { readonly form: WrittenForm }) {
  const idle = form.at('menu', 'idle');
  const isOne = idle === undefined || typeof idle === 'number';
  if (isOne) return <SecondsAt form={form} place={['menu', 'idle']} label="Closes by itself after" usualMs={8000} />;
  return (
    <>
      <SecondsAt form={form} place={['menu', 'idle', 'browseMs']} label="Closes by itself after" usualMs={8000} />
      <SecondsAt form={form} place={['menu', 'idle', 'editMs']} label="while a value is changed" usualMs={8000} />
    </>
  );
}

/** What a key that is held does to a value. */
function RepeatFields({ form }: { readonly form: WrittenForm }) {
  const isRepeating = form.at('menu', 'repeat') !== undefined;
  return (
    <>
      <NativeSelect
        label="Held, a value key"
        data={[
          { value: 'once', label: 'steps once' },
          { value: 'again', label: 'steps again and again' },
        ]}
        value={isRepeating ? 'again' : 'once'}
        onChange={({ target }) =>
          form.put(['menu', 'repeat'], target.value === 'again' ? { delayMs: 600, everyMs: 200 } : undefined)
        }
      />
      {isRepeating && (
        <>
          <SecondsAt form={form} place={['menu', 'repeat', 'delayMs']} label="first again after" />
          <SecondsAt form={form} place={['menu', 'repeat', 'everyMs']} label="and then every" />
        </>
      )}
    </>
  );
}
