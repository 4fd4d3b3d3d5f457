import type { Actor, LedgerQuestion } from '@decurio/core';
import type { KeptQuestion } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';

interface KeptRow {
  readonly id: string;
  readonly name: string;
  readonly question: string;
  readonly keptBy: string | null;
}

/** Nobody keeps an eye on more. */
const MOST = 200;

/** Questions that the house keeps under a name, by name. */
export async function keptQuestions(source: DataSource): Promise<readonly KeptQuestion[]> {
  const rows = await source.query<KeptRow[]>(
    `SELECT k.id, k.name, k.question, a.displayName AS keptBy FROM kept_question k LEFT JOIN account a ON a.id = k.keptBy
     ORDER BY k.name, k.id LIMIT ${MOST}`,
  );
  return rows.map(({ id, name, question, keptBy }) => ({
    id,
    name,
    question: JSON.parse(question) as LedgerQuestion,
    keptBy: keptBy ?? '',
  }));
}

/** Keeps a question; sent twice it is kept once. */
export async function keepQuestion(
  source: DataSource,
  { id, name, question }: { readonly id: string; readonly name: string; readonly question: LedgerQuestion },
  by: Actor,
): Promise<void> {
  const [{ n } = { n: 0 }] = await source.query<{ n: number }[]>('SELECT COUNT(*) AS n FROM kept_question');
  if (Number(n) >= MOST)
    throw new HttpProblem('badRequest', {
      message: `${MOST} questions are kept already: take out one that nobody asks.`,
    });
  await source.query(
    'INSERT IGNORE INTO kept_question (id, name, question, keptBy, keptAt) VALUES (?, ?, ?, ?, UTC_TIMESTAMP(3))',
    [id, name, JSON.stringify(question), by.userId],
  );
}

export async function dropQuestion(source: DataSource, id: string): Promise<void> {
  await source.query('DELETE FROM kept_question WHERE id = ?', [id]);
}
