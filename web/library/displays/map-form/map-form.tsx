import type { Problem } from '@decurio/core';
import { DisplayFields } from './display-fields.js';
import { EntryTable } from './entry-table.js';
import { keysIn } from './keys-field.js';
import { MenuFields } from './menu-fields.js';
import { PageFields } from './page-fields.js';
import { RestartAndDangers } from './restart-and-dangers.js';
import { writtenForm } from './written-form.js';
import classes from './map-form.module.css';

export interface MapFormProps {
  /** The map as it is written, in whatever shape it has just now. */
  readonly written: unknown;
  readonly problems: readonly Problem[];
  readonly isNew: boolean;
  readonly onChange: (written: unknown) => void;
}

/** A map in fields: what is nearly always the same need not be said, and what has no field here stays in the text. */
export function MapForm({ written, problems, isNew, onChange }: MapFormProps) {
  const form = writtenForm(written, problems, onChange);
  const keys = keysIn(form);
  const isKeyed = form.at('menu') !== undefined && form.at('menu') !== null;
  return (
    <div className={classes['form']}>
      <DisplayFields form={form} isNew={isNew} />
      {isKeyed ? (
        <MenuFields form={form} keys={keys} />
      ) : (
        <p className="soft">It is set through another channel than its keys: how stands in the text.</p>
      )}
      <EntryTable form={form} keys={keys} />
      {isKeyed && <PageFields form={form} keys={keys} />}
      <RestartAndDangers form={form} keys={keys} />
      <p className="soft">
        Ride modes, levels, icons and whatever else has no field here stand in the text, and stay as they are.
      </p>
    </div>
  );
}
