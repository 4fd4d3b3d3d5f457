import { NumberInput, Select } from '@mantine/core';
import { mapTitle, valueWords, type ApprovedValue, type DisplayMap } from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import type { DocumentForm } from '../use-document-form.js';
import classes from '../library-form.module.css';

export interface ApprovedFieldsProps {
  readonly form: DocumentForm<'vehicleType'>['form'];
  readonly maps: readonly DisplayMap[];
}

/** Values under which the type was approved, where they are not what its display is delivered with. */
export function ApprovedFields({ form, maps }: ApprovedFieldsProps) {
  const { approved, maps: fitted } = form.values;
  const set = (next: readonly ApprovedValue[]) => form.setFieldValue('approved', next as never);
  const change = (i: number, part: Partial<ApprovedValue>) =>
    set(approved.map((each, at) => (at === i ? { ...each, ...part } : each)));
  const [first] = maps.filter((map) => fitted.includes(map.id));
  return (
    <section className={classes['group']}>
      <h2>Approved with</h2>
      <p className="soft">
        Where a class says "check, never change", or may only be lowered, these count instead of what the display is
        delivered with.
      </p>
      {approved.map((each, i) => {
        const map = maps.find(({ id }) => id === each.map);
        const code = map?.codes.find(({ label }) => label === each.label);
        return (
          <div className={classes['row']} key={i}>
            <Select
              label="Display"
              data={maps
                .filter(({ id }) => fitted.includes(id))
                .map((one) => ({ value: one.id, label: mapTitle(one) }))}
              value={each.map}
              onChange={(id) =>
                id && change(i, { map: id, label: maps.find((one) => one.id === id)?.codes[0]?.label ?? '' })
              }
              allowDeselect={false}
            />
            <Select
              label="Code"
              data={map?.codes.map(({ label }) => label) ?? []}
              value={each.label}
              onChange={(label) => label && change(i, { label })}
              allowDeselect={false}
              searchable
            />
            <NumberInput
              data-scan-guard
              label="Value as shown"
              value={each.raw}
              onChange={(raw) => change(i, { raw: Number(raw) })}
              description={code && valueWords(code, each.raw)}
              hideControls
            />
            <ActButton onAct={() => set(approved.filter((_, at) => at !== i))}>Take out</ActButton>
          </div>
        );
      })}
      {first && (
        <div className={classes['acts']}>
          <ActButton
            onAct={() =>
              set([
                ...approved,
                { map: first.id, label: first.codes[0]?.label ?? '', raw: first.codes[0]?.factory ?? 0 },
              ])
            }
          >
            Another value
          </ActButton>
        </div>
      )}
    </section>
  );
}
