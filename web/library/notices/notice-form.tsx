import { MultiSelect, TextInput } from '@mantine/core';
import { mapTitle, type DisplayMap, type FleetNotice } from '@decurio/core';
import { api } from '../../state/api.js';
import { TextField, YesNoField } from '../../ui/fields.js';
import { Begun } from '../../drafts/begun.js';
import { FormFoot } from '../form-foot.js';
import { LinesField } from '../lines-field.js';
import { useDocumentForm } from '../use-document-form.js';
import classes from '../library-form.module.css';

export const NEW_NOTICE: FleetNotice = {
  format: 'decurio-notice/1',
  id: '',
  name: '',
  says: '',
  cure: '',
  source: '',
  names: { types: [], maps: [], serialFrom: null, serialTo: null, packs: [] },
  isOver: false,
};

/** A notice being written; kept, it holds every unit under way that it names, at once. */
export function NoticeForm({ start, isNew }: { readonly start: FleetNotice; readonly isNew: boolean }) {
  const { form, ...foot } = useDocumentForm('notice', start);
  const types = api.useLibraryQuery('vehicleType').data ?? [];
  const maps = api.useLibraryQuery('displayMap').data ?? [];
  const { names } = form.values;
  const serial = (field: 'serialFrom' | 'serialTo') => ({
    value: names[field] ?? '',
    maxLength: 40,
    onChange: (event: React.ChangeEvent<HTMLInputElement>) =>
      form.setFieldValue(`names.${field}`, (event.target.value === '' ? null : event.target.value) as never),
  });
  return (
    <>
      <h1>{isNew ? 'New notice' : `${start.name}, edited`}</h1>
      <Begun draft={foot.draft} />
      <form
        className={classes['groups']}
        onSubmit={(event) => {
          event.preventDefault();
          foot.submit();
        }}
      >
        <div className={classes['row']}>
          <TextField form={form} path="name" label="Name" most={60} />
          {isNew && (
            <TextField form={form} path="id" label="Id in files" most={60} hint="lower-case letters, digits, hyphens" />
          )}
          <TextField form={form} path="source" label="Who says so, and where" most={200} />
        </div>
        <TextField form={form} path="says" label="What is wrong, and what it does" most={400} rows={2} />
        <TextField form={form} path="cure" label="What is done about it" most={400} rows={2} />
        <section className={classes['group']}>
          <h2>Which units it names</h2>
          <p className="soft">All that is given has to be true of a unit; what is left empty asks nothing.</p>
          <div className={classes['row']}>
            <MultiSelect
              label="Types"
              data={types.map(({ id, name }) => ({ value: id, label: name }))}
              value={[...names.types]}
              onChange={(list) => form.setFieldValue('names.types', list as never)}
              error={form.errors['names']}
            />
            <MultiSelect
              label="Displays"
              data={maps.map((entry) => ({ value: entry.id, label: mapTitle(entry.document as DisplayMap) }))}
              value={[...names.maps]}
              onChange={(list) => form.setFieldValue('names.maps', list as never)}
            />
            <TextInput label="Serials from" {...serial('serialFrom')} />
            <TextInput label="Serials to" {...serial('serialTo')} />
          </div>
          <LinesField
            label="Packs by their numbers, one a line"
            value={names.packs}
            onChange={(lines) => form.setFieldValue('names.packs', lines as never)}
            most={60}
          />
          <LinesField
            label="Firmware of the display, one a line"
            value={names.firmware ?? []}
            onChange={(lines) => form.setFieldValue('names.firmware', lines as never)}
            most={40}
          />
        </section>
        <YesNoField form={form} path="isOver" label="Over: it holds nothing any more" />
        <FormFoot
          {...foot}
          isNew={isNew}
          back={`/library/notice/${isNew ? '' : start.id}`}
          says="Kept, it holds every unit under way that it names; others are held as they begin."
        />
      </form>
    </>
  );
}
