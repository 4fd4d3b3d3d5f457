import { object, string, type InferType } from 'yup';

/** Columns of an order file, in any order; `required` must be there. Each row is one unit. */
export const ORDER_COLUMNS = [
  { name: 'order', required: true, says: 'order number, the same in every row' },
  { name: 'customer', required: true, says: 'who it is for, the same in every row' },
  { name: 'due', required: true, says: 'when it must be ready, as 2026-11-26 08:00' },
  { name: 'place', required: true, says: 'place of use: the place of a rule pack' },
  { name: 'class', required: true, says: 'id of a class of that place' },
  { name: 'type', required: true, says: 'name of a vehicle type' },
  { name: 'display', required: false, says: 'id of the display map, where a type may carry several' },
  {
    name: 'house rules',
    required: false,
    says: "id of the house rules; the customer's own or the first ones when left out",
  },
  { name: 'limit km/h', required: false, says: "a limit below the class's, in km/h" },
  { name: 'limit mph', required: false, says: 'the same in mph' },
  { name: 'site limit km/h', required: false, says: 'what the place it is used at allows, in km/h' },
  { name: 'site limit mph', required: false, says: 'the same in mph' },
  { name: 'notes', required: false, says: 'anything whoever prepares it should know' },
  { name: 'serial', required: true, says: 'serial of the unit' },
] as const;
export type OrderColumn = (typeof ORDER_COLUMNS)[number]['name'];

export const INTAKE_LIMITS = { bytes: 10 * 1024 * 1024, rows: 50_000, serialLength: 40 } as const;

/** What is wrong with one place of an order file. Line 1 is the header; column 0 means the whole line. */
export interface IntakeProblem {
  readonly line: number;
  readonly column: number;
  readonly columnName: string | null;
  readonly code: string;
  readonly message: string;
}

/** What a checked order file holds. Nothing is taken until someone says so. */
export interface IntakeReport {
  readonly intakeId: string;
  readonly fileName: string;
  /** Null where the file as a whole cannot be read. */
  readonly order: {
    readonly number: string;
    readonly customer: string;
    readonly place: string;
    readonly className: string;
    readonly classChecked: string;
    readonly dueAt: string;
    readonly isNew: boolean;
  } | null;
  /** What is odd about the order and may well be meant: asked once, and taken as it stands. */
  readonly doubts: readonly string[];
  readonly rowsRead: number;
  readonly rowsGood: number;
  /** Rows that stand in this very order already: left alone, no problem. */
  readonly rowsAlreadyTaken: number;
  readonly rowsBad: number;
  readonly types: readonly { readonly name: string; readonly count: number }[];
  /** The first problems in file order, at most `PROBLEMS_SHOWN`. */
  readonly problems: readonly IntakeProblem[];
  readonly problemsInAll: number;
}
export const PROBLEMS_SHOWN = 200;

export interface TakenView {
  readonly orderId: string;
  readonly number: string;
  readonly unitsTaken: number;
}

export const intakeQuery = object({
  id: string().strict().uuid().required(),
  fileName: string().strict().max(200).required(),
}).noUnknown();
export type IntakeQuery = InferType<typeof intakeQuery>;
