import { MultiSelect, Select } from '@mantine/core';
import { FITTINGS, NUMBERS } from '@decurio/core';
import { api } from '../../state/api.js';
import { ChoiceField, TextField, YesNoField } from '../../ui/fields.js';
import { PAPER_TITLES } from '../rules/class-words.js';
import { RowsField } from '../rows-field.js';
import type { DocumentForm } from '../use-document-form.js';
import { BRAKE_TITLES } from './type-words.js';
import classes from '../library-form.module.css';

const options = (titles: Readonly<Record<string, string>>) =>
  Object.entries(titles).map(([value, label]) => ({ value, label }));
const WHEELS = [
  { value: 'front', label: 'front' },
  { value: 'rear', label: 'rear' },
];

/** What classes ask for and no code says: brakes, fittings, papers; and what is scanned and looked at before delivery. */
export function FittedFields({ form }: { readonly form: DocumentForm<'vehicleType'>['form'] }) {
  const type = form.values;
  const lists = api.useLibraryQuery('checkList').data ?? [];
  return (
    <section className={classes['group']} aria-label="Brakes, fittings and papers">
      <h2>Brakes, fittings and papers</h2>
      <RowsField
        title="Brakes"
        add="A brake"
        rows={type.brakes}
        onAdd={() => form.insertListItem('brakes', { wheel: 'front', how: 'disc', cutsMotor: true })}
        onRemove={(i) => form.removeListItem('brakes', i)}
      >
        {(i) => (
          <>
            <ChoiceField form={form} path={`brakes.${i}.wheel`} label="Brake on" options={WHEELS} />
            <ChoiceField form={form} path={`brakes.${i}.how`} label="By" options={options(BRAKE_TITLES)} />
            <YesNoField form={form} path={`brakes.${i}.cutsMotor`} label="Its lever ends drive" />
          </>
        )}
      </RowsField>
      <MultiSelect
        label="Carries"
        data={options(FITTINGS)}
        value={[...type.fittings]}
        onChange={(list) => form.setFieldValue('fittings', list as never)}
      />
      <MultiSelect
        label="Numbers scanned at check in"
        data={options(NUMBERS)}
        value={[...type.numbers]}
        onChange={(list) => form.setFieldValue('numbers', list as never)}
      />
      <Select
        label="Checks before delivery"
        description="the list that its units are looked at by"
        placeholder="no list"
        data={lists.map(({ id, name }) => ({ value: id, label: name }))}
        value={type.checkList}
        onChange={(id) => form.setFieldValue('checkList', id)}
        clearable
      />
      <RowsField
        title="Papers that were seen"
        add="A paper that was seen"
        rows={type.certificates}
        onAdd={() => form.insertListItem('certificates', { of: 'battery', standard: '', paper: '' })}
        onRemove={(i) => form.removeListItem('certificates', i)}
      >
        {(i) => (
          <>
            <ChoiceField form={form} path={`certificates.${i}.of`} label="Paper on" options={options(PAPER_TITLES)} />
            <TextField form={form} path={`certificates.${i}.standard`} label="Standard" most={80} />
            <TextField form={form} path={`certificates.${i}.paper`} label="Its number" most={80} />
          </>
        )}
      </RowsField>
    </section>
  );
}
