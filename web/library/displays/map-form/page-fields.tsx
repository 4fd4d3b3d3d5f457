import { MultiSelect, NativeSelect } from '@mantine/core';
import { RowsField } from '../../rows-field.js';
import { ActButton } from '../../../ui/act-button.js';
import { GestureAt } from './gesture-field.js';
import { ChoiceAt, TextAt, YesAt, type ChoiceOption } from './written-fields.js';
import type { KeysOf } from './keys-field.js';
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
        { id: 'main', title: 'First page', items: [] },
        { id: 'page-2', title: 'Second page', items: [] },
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
        takeOut="Take this page out"
        rows={pages}
        onAdd={() =>
          form.put(['menu', 'pages', pages.length], {
            id: freeId(ids.map(({ value }) => value)),
            title: `Page ${pages.length + 1}`,
            items: [],
          })
        }
        onRemove={(i) => form.put(['menu', 'pages'], pages.length === 1 ? undefined : pages.filter((_, n) => n !== i))}
      >
        {(i) => (
          <>
            <TextAt form={form} place={['menu', 'pages', i, 'title']} label="Title" most={40} />
            <YesAt form={form} place={['menu', 'pages', i, 'asksPin']} label="Asks for the PIN first" />
            <div className={classes['whole']}>
              <ItemsField form={form} at={i} labels={labels} />
            </div>
            <div className={classes['whole']}>
              <WaysField form={form} at={i} pages={ids} />
            </div>
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

function freeId(taken: readonly string[]): string {
  for (let n = 2; ; n++) if (!taken.includes(`page-${n}`)) return `page-${n}`;
}

const labelOf = (item: unknown): string | null =>
  typeof item === 'string'
    ? item
    : typeof (item as { code?: unknown } | null)?.code === 'string'
      ? String((item as { code: string }).code)
      : null;

/** Entries of a page in their order; ways on, back and out come after them. */
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
  const listed = items.flatMap((item) => labelOf(item) ?? []);
  const ways = items.filter((item) => labelOf(item) === null);
  const elsewhere = new Set(
    listAt(form, 'menu', 'pages').flatMap((_, i) =>
      listAt(form, 'menu', 'pages', i, 'items').flatMap((item) => labelOf(item) ?? []),
    ),
  );
  return (
    <MultiSelect
      label="Entries, in their order"
      data={[...new Set(labels)].toSorted((a, b) => Number(elsewhere.has(a)) - Number(elsewhere.has(b)))}
      value={[...new Set(listed)]}
      onChange={(chosen) => form.put(['menu', 'pages', at, 'items'], [...chosen, ...ways])}
      error={form.problem('menu', 'pages', at, 'items')}
      searchable
      selectFirstOptionOnChange
      hidePickedOptions
    />
  );
}

/** Lines of a page that lead on to another, back to one, or out of the menu. */
function WaysField({
  form,
  at,
  pages,
}: {
  readonly form: WrittenForm;
  readonly at: number;
  readonly pages: readonly ChoiceOption[];
}) {
  const items = listAt(form, 'menu', 'pages', at, 'items');
  const ways = items.flatMap((item, place) => (labelOf(item) === null ? [place] : []));
  const other = pages.filter((_, i) => i !== at);
  const leads = (item: unknown): string => {
    const { page, back } = (item ?? {}) as { readonly page?: unknown; readonly back?: unknown };
    return typeof page === 'string' ? `on ${page}` : typeof back === 'string' ? `back ${back}` : 'out';
  };
  const led = (to: string): object => {
    const [how, page] = to.split(' ');
    return how === 'on' ? { page } : how === 'back' ? { back: page } : { exit: true };
  };
  const put = (place: number, to: string, title: unknown) =>
    form.put(['menu', 'pages', at, 'items', place], {
      ...kept(items[place]),
      ...led(to),
      title: title ?? pages.find(({ value }) => to.endsWith(` ${value}`))?.label ?? 'Exit',
    });
  return (
    <RowsField
      title="Ways on from it"
      add="A line leads on, back or out"
      rows={ways}
      onAdd={() => put(items.length, other[0] ? `on ${other[0].value}` : 'out', undefined)}
      onRemove={(i) => form.put(['menu', 'pages', at, 'items', ways[i] ?? -1], undefined)}
    >
      {(i) => {
        const place = ways[i] ?? -1;
        const item = items[place];
        return (
          <>
            <NativeSelect
              label="Leads"
              data={[
                ...other.map(({ value, label }) => ({ value: `on ${value}`, label: `on to ${label}` })),
                ...(leads(item) === 'on ofMode'
                  ? [{ value: 'on ofMode', label: 'on to the list of the ride mode' }]
                  : []),
                ...other.map(({ value, label }) => ({ value: `back ${value}`, label: `back to ${label}` })),
                { value: 'out', label: 'out of the menu' },
              ]}
              value={leads(item)}
              onChange={({ target }) => put(place, target.value, undefined)}
            />
            <TextAt form={form} place={['menu', 'pages', at, 'items', place, 'title']} label="Shows" most={30} />
          </>
        );
      }}
    </RowsField>
  );
}

/** What the text says besides of a line that leads on, such as when it is shown. */
const kept = (item: unknown): object =>
  Object.fromEntries(
    Object.entries((item ?? {}) as object).filter(([name]) => !['page', 'back', 'exit', 'title'].includes(name)),
  );
