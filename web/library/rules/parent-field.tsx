import { Select } from '@mantine/core';
import type { RulePack } from '@decurio/core';
import { api } from '../../state/api.js';
import type { DocumentForm } from '../use-document-form.js';

/** Starts a pack from another's classes, as a state's from its country's: they follow it until they are changed here. */
export function ParentField({ form }: { readonly form: DocumentForm<'rulePack'>['form'] }) {
  const packs = api.useLibraryQuery('rulePack').data ?? [];
  const parents = packs.filter(({ document }) => (document as RulePack).parent === null);
  if (parents.length === 0) return null;
  const follow = (id: string | null) => {
    const entry = parents.find((each) => each.id === id);
    form.setFieldValue('parent', entry ? { id: entry.id, version: entry.version } : null);
    if (entry)
      form.setFieldValue(
        'classes',
        (entry.document as RulePack).classes.map((each) => ({ ...each, follows: each.id, checked: null })),
      );
    else
      form.setFieldValue(
        'classes',
        form.values.classes.map((each) => ({ ...each, follows: null })),
      );
  };
  return (
    <Select
      label="Follows"
      description="a country's pack, where this is one of its parts"
      placeholder="nothing"
      data={parents.map(({ id, document }) => ({ value: id, label: (document as RulePack).place }))}
      value={form.values.parent?.id ?? null}
      onChange={follow}
      clearable
      searchable
    />
  );
}
