import type { EntityManager } from 'typeorm';

/** Writes columns of one row by its id. Their names are our own, never what was sent. */
export const updateRow = <Row extends object>(
  manager: EntityManager,
  table: 'visit' | 'unit',
  id: string,
  columns: Readonly<Partial<Row>>,
): Promise<unknown> =>
  manager.query(
    `UPDATE ${table} SET ${Object.keys(columns)
      .map((name) => `${name} = ?`)
      .join(', ')} WHERE id = ?`,
    [...Object.values(columns), id],
  );
