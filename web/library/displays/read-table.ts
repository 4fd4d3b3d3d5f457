import Papa from 'papaparse';
import { codesFromTable, type CodesFromTable } from '@decurio/core';

export type ReadTable =
  { readonly ok: true; readonly table: CodesFromTable } | { readonly ok: false; readonly says: string };

/** Codes of a CSV file, whatever its separator; a file without the columns it must have is refused in words. */
export function readTable(fileName: string, text: string): ReadTable {
  const parsed = Papa.parse<Record<string, string>>(text, {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (header) => header.trim().toLowerCase(),
  });
  const missing = ['code', 'min', 'max'].filter((column) => parsed.meta.fields?.includes(column) !== true);
  if (missing.length > 0)
    return {
      ok: false,
      says: `${fileName} has no column ${missing.join(' and none ')}. The first line names the columns.`,
    };
  const table = codesFromTable(parsed.data);
  if (table.codes.length > 0) return { ok: true, table };
  return {
    ok: false,
    says: ['No row could be used.', ...table.problems.slice(0, 4).map((p) => `${p.path}: ${p.message}`)].join(' '),
  };
}
