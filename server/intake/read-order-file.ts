import { CsvError, parse } from 'csv-parse/sync';
import { INTAKE_LIMITS, type IntakeProblem } from '@decurio/contract';

/** One row of the file with the line it begins on; line 1 is the header. */
export interface FileRow {
  readonly line: number;
  readonly cells: readonly string[];
}

export type FileRead =
  | { readonly ok: true; readonly rows: readonly FileRow[]; readonly broken: IntakeProblem | null }
  | { readonly ok: false; readonly problem: IntakeProblem };

const SIGNATURES: readonly { readonly bytes: readonly number[]; readonly says: string }[] = [
  {
    bytes: [0x50, 0x4b, 0x03, 0x04],
    says: 'This is a spreadsheet or an archive, not a CSV file, whatever its name says. In the spreadsheet choose "save as CSV (UTF-8)" and drop that.',
  },
  {
    bytes: [0xd0, 0xcf, 0x11, 0xe0],
    says: 'This is an old spreadsheet, not a CSV file. In the spreadsheet choose "save as CSV (UTF-8)" and drop that.',
  },
  { bytes: [0x89, 0x50, 0x4e, 0x47], says: 'This is a picture (PNG), not a CSV file. Drop the order file instead.' },
  { bytes: [0xff, 0xd8, 0xff], says: 'This is a picture (JPEG), not a CSV file. Drop the order file instead.' },
  { bytes: [0x25, 0x50, 0x44, 0x46], says: 'This is a PDF, not a CSV file. Ask the sender for the order as CSV.' },
];

/**
 * Reads an order file: UTF-8 with or without BOM (UTF-16 with one), any line ends, comma, semicolon or tab.
 * Blank lines are passed over and counted. `broken` is the row that spoils the reading of everything after it, such as a
 * quote that never ends; the rows before it stand.
 */
export function readOrderFile(bytes: Buffer): FileRead {
  const foreign = SIGNATURES.find((signature) => signature.bytes.every((byte, i) => bytes[i] === byte));
  if (foreign) return whole('notCsv', foreign.says);
  const decoded = decode(bytes);
  if (!decoded.ok) return decoded;
  const text = decoded.text;
  if (text.trim() === '') return whole('empty', 'The file is empty. It needs a header line and one line per unit.');
  const lines = linesIn(text);
  if (lines > MOST_LINES)
    return whole(
      'tooManyLines',
      `The file has ${lines.toLocaleString('en')} lines, and an order at most ${INTAKE_LIMITS.rows.toLocaleString('en')} units. Delete the empty lines at its end, or look whether it is the right file.`,
    );
  if (!/[^\s,;\t"]/.test(text))
    return whole('empty', 'The file holds separators alone. It needs a header line and one line per unit.');
  if (text.includes('\0')) return whole('notCsv', 'This is not a text file. Drop the order as CSV (UTF-8).');
  return { ok: true, ...rowsOf(text.trimEnd()) };
}

/** Blank lines are passed over, but not without end. */
const MOST_LINES = 2 * INTAKE_LIMITS.rows + 1000;

function linesIn(text: string): number {
  let lines = 1;
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code === 0x0a || (code === 0x0d && text.charCodeAt(at + 1) !== 0x0a)) lines++;
  }
  return lines;
}

const whole = (code: string, message: string, line = 0): { ok: false; problem: IntakeProblem } => ({
  ok: false,
  problem: { line, column: 0, columnName: null, code, message },
});

function decode(bytes: Buffer): { ok: true; text: string } | { ok: false; problem: IntakeProblem } {
  const encoding =
    bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : 'utf-8';
  try {
    return { ok: true, text: new TextDecoder(encoding, { fatal: true }).decode(bytes) };
  } catch {
    const line = firstBrokenLine(bytes);
    return whole(
      'notUtf8',
      `Line ${line} holds letters in an old encoding. Save the file as "CSV UTF-8" and drop it again.`,
      line,
    );
  }
}

function firstBrokenLine(bytes: Buffer): number {
  let line = 1;
  for (let from = 0; from < bytes.length; line++) {
    const end = bytes.indexOf(0x0a, from);
    const to = end === -1 ? bytes.length : end + 1;
    try {
      new TextDecoder('utf-8', { fatal: true }).decode(bytes.subarray(from, to));
    } catch {
      return line;
    }
    from = to;
  }
  return line;
}

/** The separator that splits the header into most cells, outside quotes. */
function delimiterOf(text: string): string {
  const header = (text.split(/\r\n|\n|\r/).find((line) => line.trim() !== '') ?? '').replace(/"[^"]*"/g, '');
  const count = (delimiter: string) => header.split(delimiter).length;
  return [',', ';', '\t'].reduce((best, delimiter) => (count(delimiter) > count(best) ? delimiter : best));
}

function rowsOf(text: string): { rows: readonly FileRow[]; broken: IntakeProblem | null } {
  const rows: FileRow[] = [];
  const breaks = (line: number, message: string) => ({
    rows,
    broken: { line, column: 0, columnName: null, code: 'brokenRow', message },
  });
  try {
    parse(text, {
      delimiter: delimiterOf(text),
      record_delimiter: ['\r\n', '\n', '\r'],
      relax_column_count: true,
      skip_records_with_empty_values: true,
      trim: true,
      bom: true,
      max_record_size: 64 * 1024,
      to: INTAKE_LIMITS.rows + 2,
      on_record: (record: string[], { lines }) => {
        rows.push({ line: lines, cells: record });
        return null;
      },
    });
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    return breaks(Number((error as { lines?: number }).lines ?? 0), rowErrorSays(error.code));
  }
  const first = rows[INTAKE_LIMITS.rows + 1];
  return first
    ? breaks(first.line, `The file has more than ${INTAKE_LIMITS.rows} units. Split it into several orders.`)
    : { rows, broken: null };
}

function rowErrorSays(code: string): string {
  if (code === 'CSV_QUOTE_NOT_CLOSED')
    return 'A quotation mark is opened and never closed, so everything after it runs together. Close it, then drop the file again.';
  if (code === 'CSV_MAX_RECORD_SIZE')
    return 'This line is far too long for a unit. A quotation mark may be missing above.';
  return 'A quotation mark stands inside a cell. Put the whole cell in quotes and double the one inside, or leave it out.';
}
