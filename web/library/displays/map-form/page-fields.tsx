import { MultiSelect } from '@mantine/core';
import { RowsField } from '../../rows-field.js';
import { ActButton } from '../../../ui/act-button.js';
import { GestureAt } from './gesture-field.js';
import { ChoiceAt, TextAt, YesAt } from './written-fields.js';
import type { KeysOf } from './display-fields.js';
import { listAt, type WrittenForm } from './written-form.js';
import classes from './map-form.module.css';

interface PageFieldsProps {
  readonly form: WrittenForm;
  readonly keys: readonly KeysOf[];
}

/** Pages, where the menu is more than one list, and what turns from one to another. */
export function PageFields({ form, keys }: PageFieldsProps) {
  const pages = listAt(form, 'menu', 'pages');
  const labels = listAt(form, 'codes').flatMap((code) => {
    const label = (code as Readonly<Record<string, unknown>> | null)?.['label'];
    return typeof label === 'string' && label !== '' ? [label] : [];
  });
  const split = () =>
    form.put(
      ['menu', 'pages'],
      [
        { id: 'main', title: 'Menu', items: labels },
        { id: 'second', title: 'Second page', items: labels.slice(-1) },
      ],
    );
  if (pages.length === 0)
    return (
      <section className={classes['part']} aria-label="Pages">
        <h2>Pages</h2>
        <p className="soft">One list of all entries, in their order.</p>
        <div>
          <ActButton onAct={split}>It has several pages</ActButton>
        </div>
      </section>
    );
  const turns = listAt(form, 'menu', 'turns');
  const ids = pages.flatMap((page) => {
    const { id, title } = (page ?? {}) as { id?: unknown; title?: unknown };
    return typeof id === 'string' ? [{ value: id, label: typeof title === 'string' ? title : id }] : [];
  });
  return (
    <section className={classes['part']} aria-label="Pages">
      <h2>Pages</h2>
      <RowsField
        title="Pages of the menu"
        add="Another page"
        rows={pages}
        onAdd={() =>
          form.put(['menu', 'pages', pages.length], {
            id: `page-${pages.length + 1}`,
            title: `Page ${pages.length + 1}`,
            items: [],
          })
        }
        onRemove={(i) => form.put(['menu', 'pages'], pages.length === 1 ? undefined : pages.filter((_, n) => n !== i))}
      >
        {(i) => (
          <>
            <TextAt form={form} place={['menu', 'pages', i, 'title']} label="Title" most={40} />
            <TextAt form={form} place={['menu', 'pages', i, 'id']} label="Id" most={60} />
            <ItemsField form={form} at={i} labels={labels} />
            <YesAt form={form} place={['menu', 'pages', i, 'asksPin']} label="Asks for the PIN first" />
          </>
        )}
      </RowsField>
      <RowsField
        title="Turning from page to page"
        add="A gesture turns to another page"
        rows={turns}
        onAdd={() =>
          form.put(['menu', 'turns', turns.length], {
            gesture: keys[0]?.id ?? '',
            from: ids[0]?.value,
            to: ids[1]?.value,
          })
        }
        onRemove={(i) => form.put(['menu', 'turns'], turns.length === 1 ? undefined : turns.filter((_, n) => n !== i))}
      >
        {(i) => (
          <>
            <ChoiceAt form={keep(form)} place={['menu', 'turns', i, 'from']} label="From" options={ids} />
            <ChoiceAt form={keep(form)} place={['menu', 'turns', i, 'to']} label="To" options={ids} />
            <GestureAt form={form} place={['menu', 'turns', i, 'gesture']} label="By" keys={keys} />
          </>
        )}
      </RowsField>
    </section>
  );
}

/** A turn names both its pages, the first of them too. */
const keep = (form: WrittenForm): WrittenForm => ({
  ...form,
  put: (place, value) => {
    const [first] = listAt(form, 'menu', 'pages');
    form.put(place, value ?? (first as { id?: unknown } | undefined)?.id);
  },
});

/** Entries of a page in their order; ways on, back and out stay as the text has them. */
function ItemsField({
  form,
  at,
  labels,
}: {
  readonly form: WrittenForm;
  readonly at: number;
  readonly labels: readonly string[];
}) {
  const items = listAt(form, 'menu', 'pages', at, 'items');
  const labelOf = (item: unknown): string | null =>
    typeof item === 'string'
      ? item
      : typeof (item as { code?: unknown } | null)?.code === 'string'
        ? String((item as { code: string }).code)
        : null;
  const listed = items.flatMap((item) => labelOf(item) ?? []);
  const ways = items.filter((item) => labelOf(item) === null);
  return (
    <MultiSelect
      label="Entries, in their order"
      {...(ways.length > 0 ? { description: `and ${ways.length} ways on or out, after them` } : {})}
      data={[...new Set(labels)]}
      value={[...new Set(listed)]}
      onChange={(chosen) => form.put(['menu', 'pages', at, 'items'], [...chosen, ...ways])}
      error={form.problem('menu', 'pages', at, 'items')}
      searchable
    />
  );
}
