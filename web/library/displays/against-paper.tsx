import { useState } from 'react';
import { compareTable, type DisplayMap } from '@decurio/core';
import { Notice } from '../../ui/notice.js';
import { FileInput } from '../../ui/file-input.js';
import { readTable, type ReadTable } from './read-table.js';
import page from '../library-page.module.css';
import classes from './displays.module.css';

const KINDS = { onlyInTable: 'only in the paper', onlyOnDisplay: 'only on the display', differs: 'differs' } as const;

/** The map held against a maker's table. */
export function AgainstPaper({ map }: { readonly map: DisplayMap }) {
  const [read, setRead] = useState<ReadTable | null>(null);
  const differences = read?.ok ? compareTable(map, read.table.codes) : [];
  return (
    <section className={classes['form']} aria-label="Against the maker's table">
      <h2>Against the maker&apos;s table</h2>
      <p>
        CSV with the columns code, min, max and, where known, function, factory, access. The paper is often of another
        revision: where they differ, the unit is right.
      </p>
      <FileInput
        label="The maker's table"
        accept=".csv,text/csv"
        onText={(name, text) => setRead(readTable(name, text))}
      />
      {read && !read.ok && <Notice kind="stop" says={read.says} />}
      {read?.ok && read.table.problems.length > 0 && (
        <Notice
          kind="care"
          says={`${read.table.problems.length} rows could not be read: ${read.table.problems
            .slice(0, 3)
            .map((p) => `${p.path}: ${p.message}`)
            .join(' ')}`}
        />
      )}
      {read?.ok && differences.length === 0 && (
        <Notice kind="done" says={`Paper and map say the same of ${read.table.codes.length} codes.`} />
      )}
      {differences.length > 0 && (
        <table className={page['table']} aria-label="Paper against map">
          <tbody>
            {differences.map(({ label, kind, says }) => (
              <tr key={label}>
                <th scope="row">
                  {label}
                  <small>{KINDS[kind]}</small>
                </th>
                <td>{says}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
