import { makeDataSource } from './data-source.js';
import { refreshHeld } from './refresh-held.js';

/** Tables that the application may add to and read, and never change. */
export const APPEND_ONLY = [
  'account_event',
  'checkpoint',
  'evidence',
  'handover_entry',
  'library_document',
  'order_change',
  'photo',
  'pin_look',
  'seal_head',
  'tyre_batch',
];

/**
 * Brings the database to the newest schema with the owner's rights, then gives the application's user what it
 * needs and no more: no right to update or delete evidence.
 * @returns names of the migrations that ran
 */
export async function migrate(ownerUrl: string, applicationUrl: string): Promise<readonly string[]> {
  const source = await makeDataSource(ownerUrl, 2).initialize();
  try {
    const ran = await source.runMigrations({ transaction: 'each' });
    const owner = decodeURIComponent(new URL(ownerUrl).username);
    const application = decodeURIComponent(new URL(applicationUrl).username);
    if (application !== owner) {
      const tables = (await source.query('SHOW TABLES')) as Record<string, string>[];
      for (const table of tables.flatMap((row) => Object.values(row))) {
        const isAppendOnly = APPEND_ONLY.includes(table);
        const rights = isAppendOnly ? 'SELECT, INSERT' : 'SELECT, INSERT, UPDATE, DELETE';
        await source.query(`GRANT ${rights} ON \`${table}\` TO ?@'%'`, [application]);
        // What an earlier release gave is taken back.
        if (isAppendOnly) await source.query(`REVOKE UPDATE, DELETE ON \`${table}\` FROM ?@'%'`, [application]);
      }
    }
    if (ran.length > 0) await refreshHeld(source);
    return ran.map((migration) => migration.name);
  } finally {
    await source.destroy();
  }
}
