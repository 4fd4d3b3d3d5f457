import type { DataSource } from 'typeorm';

const PATIENCE_MS = 1_500;

/** Asks the database for a sign of life: one question at a time, so that one that hangs is not asked again and again. */
export function databaseAnswers(source: DataSource): () => Promise<boolean> {
  let asking: Promise<boolean> | null = null;
  return () => {
    asking ??= source
      // A node of a cluster that was cut off from the others still answers what needs no table.
      .query('SELECT 1 FROM house LIMIT 1')
      .then(
        () => true,
        () => false,
      )
      .finally(() => {
        asking = null;
      });
    return Promise.race([asking, within(PATIENCE_MS)]);
  };
}

const within = (ms: number): Promise<false> =>
  new Promise((resolve) => void setTimeout(() => resolve(false), ms).unref());
