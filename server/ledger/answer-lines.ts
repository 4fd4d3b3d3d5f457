import type { LedgerQuestion } from '@decurio/core';
import type { LedgerAnswer } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import { askLedger } from '../store/ledger-question.js';

type Item = LedgerAnswer['items'][number];

/** Rows of one page of a file: more than on a screen, fewer than would fill the memory. */
const PAGE = 500;

/** Every unit that a question finds, one after another, page by page: memory does not grow with them. */
async function* everyItem(source: DataSource, question: LedgerQuestion): AsyncGenerator<Item> {
  let after: string | undefined;
  do {
    const page: LedgerAnswer = await askLedger(source, question, after, PAGE);
    yield* page.items;
    after = page.next ?? undefined;
  } while (after !== undefined);
}

const COLUMNS = [
  'serial',
  'type',
  'order',
  'customer',
  'sealed',
  'signed off by',
  'out',
  'codes',
  'seal',
  'visit',
] as const;

/** The answer as CSV: a spreadsheet reads no cell of it as a formula. */
export async function* answerCsv(source: DataSource, question: LedgerQuestion): AsyncGenerator<string> {
  yield `${COLUMNS.map(cell).join(',')}\r\n`;
  for await (const item of everyItem(source, question))
    yield `${[
      item.serial,
      item.typeName,
      item.orderNumber,
      item.customer,
      item.sealedAt,
      item.sealedBy,
      item.isOut ? 'yes' : 'no',
      item.codes.map(({ label, shown, says }) => `${label} ${shown} (${says})`).join('; '),
      item.seal,
      item.visitId,
    ]
      .map(cell)
      .join(',')}\r\n`;
}

/** The answer as JSON, a unit a line. */
export async function* answerLines(source: DataSource, question: LedgerQuestion): AsyncGenerator<string> {
  for await (const item of everyItem(source, question)) yield `${JSON.stringify(item)}\n`;
}

/** Quoted where it must be; what a spreadsheet would take for a formula begins with an apostrophe. */
function cell(text: string): string {
  const safe = /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}
