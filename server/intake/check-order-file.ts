import dayjs from 'dayjs';
import { PLAIN_TERMS, type OrderPromise, type Speed, type VehicleClass, type VehicleType } from '@decurio/core';
import customParseFormat from 'dayjs/plugin/customParseFormat.js';
import {
  INTAKE_LIMITS,
  ORDER_COLUMNS,
  type IntakeProblem,
  type LibraryEntry,
  type OrderColumn,
} from '@decurio/contract';
import type { FileRow } from './read-order-file.js';

dayjs.extend(customParseFormat);

/** What the file is checked against: of each document only what an order names it by. */
export interface IntakeLibrary {
  readonly types: readonly (Named & Pick<VehicleType, 'kind' | 'maps'>)[];
  readonly maps: readonly { readonly id: string; readonly family: string | null }[];
  readonly rulePacks: readonly (Named & {
    readonly place: string;
    readonly classes: readonly Pick<VehicleClass, 'id' | 'title' | 'kind' | 'regime'>[];
  })[];
  readonly houseRules: readonly { readonly id: string; readonly customer: string | null }[];
}

interface Named {
  readonly id: string;
  readonly name: string;
}

interface Shelves {
  readonly types: readonly LibraryEntry<'vehicleType'>[];
  readonly maps: readonly LibraryEntry<'displayMap'>[];
  readonly rulePacks: readonly LibraryEntry<'rulePack'>[];
  readonly houseRules: readonly LibraryEntry<'houseRules'>[];
}

export const intakeLibrary = ({ types, maps, rulePacks, houseRules }: Shelves): IntakeLibrary => ({
  types: types.map(({ id, name, document: { kind, maps: fitted } }) => ({ id, name, kind, maps: fitted })),
  maps: maps.map(({ id, document }) => ({ id, family: document.family ?? null })),
  rulePacks: rulePacks.map(({ id, name, document: { place, classes } }) => ({
    id,
    name,
    place,
    classes: classes.map(({ id: classId, title, kind, regime }) => ({ id: classId, title, kind, regime })),
  })),
  houseRules: houseRules.map(({ id, document: { customer } }) => ({ id, customer })),
});

/** What an order file promises for all of its units. */
export interface OrderDraft extends OrderPromise {
  readonly number: string;
  /** Whether the file names its house rules; where not, those of an order that stands already stay. */
  readonly namesHouseRules: boolean;
}

export interface UnitDraft {
  readonly line: number;
  readonly serial: string;
  readonly typeId: string;
  readonly typeName: string;
  readonly mapId: string;
}

export interface CheckedFile {
  readonly order: OrderDraft | null;
  readonly units: readonly UnitDraft[];
  readonly rowsRead: number;
  readonly problems: readonly IntakeProblem[];
  /** Where the serial stands, for problems found later in the database. */
  readonly serialColumn: number;
}

type Cells = (name: OrderColumn) => string;
type Complain = (name: OrderColumn | null, code: string, message: string) => void;

const SERIAL = /^[A-Za-z0-9][A-Za-z0-9._/-]*$/;
const DATE_FORMATS = ['YYYY-MM-DD HH:mm', 'YYYY-MM-DDTHH:mm', 'YYYY-MM-DD'];

/** Checks every row against the library and the rows before it. What the database alone knows is not asked here. */
export function checkOrderFile(rows: readonly FileRow[], library: IntakeLibrary): CheckedFile {
  const problems: IntakeProblem[] = [];
  const units: UnitDraft[] = [];
  const firstLineOf = new Map<string, number>();
  const [headerRow, ...unitRows] = rows;
  if (!headerRow) return { order: null, units, rowsRead: 0, problems, serialColumn: 0 };
  const header = readHeader(headerRow);
  const serialColumn = (header.at.get('serial') ?? -1) + 1;
  const [firstRow] = unitRows;
  if (header.problems.length > 0 || !firstRow) {
    const noUnits = {
      line: headerRow.line + 1,
      column: 0,
      columnName: null,
      code: 'noUnits',
      message: 'The file has a header and no unit below it.',
    };
    return {
      order: null,
      units,
      rowsRead: unitRows.length,
      problems: header.problems.length > 0 ? header.problems : [noUnits],
      serialColumn,
    };
  }
  const first = { ...rowTools(firstRow, header, problems), line: firstRow.line };
  const order = readOrder(first.cells, library, first.complain);
  for (const row of unitRows) {
    const { cells, complain } = rowTools(row, header, problems);
    const before = problems.length;
    if (row !== firstRow) checkSameOrder(cells, first, complain);
    const unit = readUnit(row, cells, library, order, complain);
    checkSerial(row, cells('serial'), firstLineOf, complain);
    if (row.cells.length > header.columns.length) {
      complain(
        null,
        'tooManyCells',
        `This line has ${row.cells.length} cells, the header ${header.columns.length}. A comma may stand in a cell without quotes.`,
      );
    }
    if (unit && problems.length === before) units.push(unit);
  }
  return { order, units: order ? units : [], rowsRead: unitRows.length, problems, serialColumn };
}

interface Header {
  readonly columns: readonly string[];
  readonly at: ReadonlyMap<OrderColumn, number>;
  readonly problems: readonly IntakeProblem[];
}

function readHeader(row: FileRow): Header {
  const columns = row.cells.map((cell) =>
    cell
      .toLowerCase()
      .replace(/[_\s]+/g, ' ')
      .trim(),
  );
  const at = new Map<OrderColumn, number>();
  const problems: IntakeProblem[] = [];
  const say = (column: number, code: string, message: string) =>
    problems.push({ line: row.line, column, columnName: columns[column - 1] ?? null, code, message });
  for (const { name, required, says } of ORDER_COLUMNS) {
    const index = columns.indexOf(name);
    if (index !== -1) at.set(name, index);
    else if (required) say(0, 'missingColumn', `The column "${name}" is missing (${says}). Add it to the header line.`);
    if (index !== -1 && columns.indexOf(name, index + 1) !== -1)
      say(columns.indexOf(name, index + 1) + 1, 'columnTwice', `The column "${name}" stands in the header twice.`);
  }
  columns.forEach((name, i) => {
    if (name !== '' && !ORDER_COLUMNS.some((column) => column.name === name)) {
      const known = ORDER_COLUMNS.map((column) => column.name).join(', ');
      say(
        i + 1,
        'unknownColumn',
        `"${row.cells[i]}" is no column of an order file. Known are: ${known}. Rename it, or leave it out.`,
      );
    }
  });
  return { columns, at, problems };
}

function rowTools(row: FileRow, header: Header, problems: IntakeProblem[]): { cells: Cells; complain: Complain } {
  const cells: Cells = (name) => {
    const index = header.at.get(name);
    return index === undefined ? '' : (row.cells[index] ?? '');
  };
  const complain: Complain = (name, code, message) => {
    const column = name === null ? 0 : (header.at.get(name) ?? -1) + 1;
    problems.push({ line: row.line, column, columnName: name, code, message });
  };
  return { cells, complain };
}

const same = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

function readOrder(cells: Cells, library: IntakeLibrary, complain: Complain): OrderDraft | null {
  let whole = true;
  const need = (name: OrderColumn, most: number): string => {
    const text = cells(name);
    if (text === '') fail(name, 'emptyCell', `"${name}" is empty.`);
    if (text.length > most) fail(name, 'tooLong', `"${name}" is longer than ${most} letters.`);
    return text;
  };
  const fail: Complain = (name, code, message) => {
    whole = false;
    complain(name, code, message);
  };
  const number = need('order', 40);
  const customer = need('customer', 120);
  const dueText = need('due', 40);
  const due = DATE_FORMATS.map((format) => dayjs(dueText, format, true)).find((date) => date.isValid());
  if (dueText !== '' && !due) fail('due', 'badDate', `"${dueText}" is no date. Write it as 2026-11-26 08:00.`);
  const place = need('place', 60);
  const rulePack = library.rulePacks.find((pack) => same(pack.place, place));
  if (place !== '' && !rulePack) {
    const known = library.rulePacks.map((pack) => pack.place).join(', ');
    fail(
      'place',
      'unknownPlace',
      `There are no rules for "${place}", and none are guessed. Known: ${known || 'none yet'}.`,
    );
  }
  const classId = need('class', 60);
  const vehicleClass = rulePack?.classes.find((c) => same(c.id, classId));
  if (rulePack && classId !== '' && !vehicleClass) {
    fail(
      'class',
      'unknownClass',
      `${rulePack.name} has no class "${classId}". It has: ${rulePack.classes.map((c) => c.id).join(', ')}.`,
    );
  }
  const houseRulesId = cells('house rules');
  const houseRules =
    houseRulesId === '' ? customersOwn(library, customer) : library.houseRules.find((h) => same(h.id, houseRulesId));
  if (!houseRules)
    fail(
      'house rules',
      'unknownHouseRules',
      houseRulesId === ''
        ? 'The library has no house rules for every customer yet. Name those of this order in "house rules".'
        : `There are no house rules "${houseRulesId}".`,
    );
  if (vehicleClass?.regime === 'privateLand')
    fail(
      'class',
      'needsAuthority',
      `"${vehicleClass.title}" is for private land and wants a lead's own authority: a lead takes this order in by hand.`,
    );
  const orderLimit = readLimit(cells, 'limit', fail);
  const siteLimit = readLimit(cells, 'site limit', fail);
  const notes = cells('notes');
  if (notes.length > 1000) fail('notes', 'tooLong', '"notes" is longer than 1000 letters.');
  if (!whole || !due || !rulePack || !vehicleClass || !houseRules) return null;
  return {
    number,
    customer,
    place: rulePack.place,
    rulePackId: rulePack.id,
    classId: vehicleClass.id,
    className: vehicleClass.title,
    houseRulesId: houseRules.id,
    namesHouseRules: houseRulesId !== '',
    terms: { ...PLAIN_TERMS, siteLimit, orderLimit },
    notes,
    dueAt: due.format('YYYY-MM-DDTHH:mm'),
  };
}

/** A limit in the column of its unit; both at once would be guessing. */
function readLimit(cells: Cells, name: 'limit' | 'site limit', complain: Complain): Speed | null {
  const read = (unit: Speed['unit']): Speed | null => {
    const column = `${name} ${unit}` as OrderColumn;
    const text = cells(column).replace(',', '.');
    if (text === '') return null;
    const value = /^\d{1,3}(\.\d{1,3})?$/.test(text) ? Number(text) : 0;
    if (!(value > 0 && value <= 100)) complain(column, 'badLimit', `"${text}" is no speed in ${unit}.`);
    return { value, unit };
  };
  const [metric, miles] = [read('km/h'), read('mph')];
  if (metric && miles)
    complain(`${name} mph`, 'twoUnits', `The ${name} is given in km/h and in mph. Keep the one that was promised.`);
  return metric ?? miles;
}

/** The customer's own house rules, else the first that are for everybody; never those of another customer. */
const customersOwn = (
  { houseRules }: IntakeLibrary,
  customer: string,
): IntakeLibrary['houseRules'][number] | undefined =>
  houseRules.find((own) => own.customer !== null && same(own.customer, customer)) ??
  houseRules.find((own) => own.customer === null);

const PER_ORDER = [
  'order',
  'customer',
  'due',
  'place',
  'class',
  'house rules',
  'limit km/h',
  'limit mph',
  'site limit km/h',
  'site limit mph',
  'notes',
] as const;

function checkSameOrder(
  cells: Cells,
  first: { readonly cells: Cells; readonly line: number },
  complain: Complain,
): void {
  for (const name of PER_ORDER) {
    if (cells(name) !== first.cells(name)) {
      const what =
        name === 'order'
          ? 'A file holds one order; put the other one in its own file.'
          : 'All rows of an order must agree.';
      complain(name, 'otherThanFirst', `"${cells(name)}" here, "${first.cells(name)}" in line ${first.line}. ${what}`);
    }
  }
}

function readUnit(
  row: FileRow,
  cells: Cells,
  library: IntakeLibrary,
  order: OrderDraft | null,
  complain: Complain,
): UnitDraft | null {
  const typeText = cells('type');
  const type = library.types.find((t) => same(t.name, typeText) || same(t.id, typeText));
  if (!type) {
    complain(
      'type',
      'unknownType',
      typeText === ''
        ? '"type" is empty.'
        : `The library has no type "${typeText}". It has: ${library.types.map((t) => t.name).join(', ') || 'none yet'}.`,
    );
    return null;
  }
  const vehicleClass = library.rulePacks
    .find((p) => p.id === order?.rulePackId)
    ?.classes.find((c) => c.id === order?.classId);
  if (vehicleClass && vehicleClass.kind !== 'any' && vehicleClass.kind !== type.kind) {
    complain(
      'type',
      'otherKind',
      `${type.name} is a ${type.kind}; the class "${vehicleClass.title}" is for a ${vehicleClass.kind}.`,
    );
    return null;
  }
  const displayText = cells('display');
  const fitted = type.maps.filter((id) => library.maps.some((map) => map.id === id));
  const mapId =
    displayText === '' && lookAlike(library.maps, fitted) ? fitted[0] : fitted.find((id) => same(id, displayText));
  if (mapId === undefined) {
    const choice = fitted.join(', ') || 'none in the library yet';
    complain(
      'display',
      'unknownDisplay',
      displayText === ''
        ? `${type.name} may carry several displays. Name one: ${choice}.`
        : `${type.name} does not carry "${displayText}". It carries: ${choice}.`,
    );
    return null;
  }
  return { line: row.line, serial: cells('serial'), typeId: type.id, typeName: type.name, mapId };
}

function checkSerial(row: FileRow, serial: string, firstLineOf: Map<string, number>, complain: Complain): void {
  if (serial === '') return complain('serial', 'emptyCell', '"serial" is empty.');
  if (serial.length > INTAKE_LIMITS.serialLength) {
    return complain(
      'serial',
      'tooLong',
      `A serial has at most ${INTAKE_LIMITS.serialLength} characters, this one ${[...serial].length}.`,
    );
  }
  if (!SERIAL.test(serial)) {
    const odd = [...serial].find((character) => !/[A-Za-z0-9._/-]/.test(character)) ?? serial.charAt(0);
    return complain(
      'serial',
      'oddSerial',
      `"${odd}" cannot stand ${odd === serial.charAt(0) ? 'at the start of' : 'in'} a serial. Letters, digits, hyphen, point, slash and underscore can; type it as on the frame.`,
    );
  }
  const earlier = firstLineOf.get(serial.toLowerCase());
  if (earlier !== undefined) return complain('serial', 'serialTwice', `${serial} stands in line ${earlier} already.`);
  firstLineOf.set(serial.toLowerCase(), row.line);
}

/** Displays that need no naming in a file: there is one, or they look alike and check in tells them apart. */
function lookAlike(maps: IntakeLibrary['maps'], fitted: readonly string[]): boolean {
  const families = new Set(fitted.map((id) => maps.find((map) => map.id === id)?.family ?? id));
  return families.size === 1;
}
