import { TextInput } from '@mantine/core';
import { useRef } from 'react';
import { withKeyCalled } from '@decurio/core';
import { ActButton } from '../../../ui/act-button.js';
import { listAt, type WrittenForm } from './written-form.js';
import classes from './map-form.module.css';

export interface KeysOf {
  readonly id: string;
  readonly label: string;
}

/** Keys as they are written: a name alone is printed as it is. */
export function keysIn(form: WrittenForm): readonly KeysOf[] {
  return listAt(form, 'keys').flatMap((key) => {
    if (typeof key === 'string') return [{ id: key, label: key }];
    const { id, label } = (key ?? {}) as Partial<KeysOf>;
    return typeof id === 'string' ? [{ id, label: label ?? id }] : [];
  });
}

/** The keys by what is printed on them, a field each. A gesture means its key, whatever that is called. */
export function KeysField({ form, keys }: { readonly form: WrittenForm; readonly keys: readonly KeysOf[] }) {
  const group = useRef<HTMLFieldSetElement>(null);
  const call = (at: number, label: string) => form.change((written) => withKeyCalled(written, at, label));
  return (
    <fieldset ref={group} className={classes['keys']} aria-label="Keys, as printed on them">
      <legend>Keys, as printed on them</legend>
      {keys.map(({ label }, at) => (
        <TextInput
          key={at}
          aria-label={`Key ${at + 1}`}
          value={label}
          onChange={({ target }) => call(at, target.value.replaceAll(/\s/g, ''))}
          onBlur={({ target }) => target.value === '' && form.put(['keys', at], undefined)}
          error={form.problem('keys', at) !== null}
          maxLength={20}
          autoComplete="off"
          data-scan-guard="words"
        />
      ))}
      <ActButton
        onAct={() => {
          call(keys.length, `K${keys.length + 1}`);
          requestAnimationFrame(() => [...(group.current?.querySelectorAll('input') ?? [])].at(-1)?.select());
        }}
      >
        Another key
      </ActButton>
      <p className="soft">One that is emptied is taken out.</p>
      {form.problem('keys') !== null && <p role="alert">{form.problem('keys')}</p>}
    </fieldset>
  );
}
