import { migrate } from '../../server/dist/store/migrate.js';
import { makeDataSource } from '../../server/dist/store/data-source.js';
import { verifyLedger } from '../../server/dist/ledger/verify-ledger.js';
import { bringBack } from './backup-file.mjs';
import { StartProblem } from './say.mjs';

/**
 * Brings a checked backup into an empty database, up to today's form, and walks its whole ledger.
 * @param {string} file
 * @param {{ databaseUrl: string, ownerUrl: string }} urls
 * @param {(finding: { of: string, says: string }) => void} tell hears what is not as it was sealed
 * @throws {StartProblem} where the database is not empty: nothing is ever overwritten
 */
export async function restore(file, { databaseUrl, ownerUrl }, tell) {
  const owner = await makeDataSource(ownerUrl, 1).initialize();
  try {
    const [{ n }] = await owner.query(
      'SELECT COUNT(*) AS n FROM information_schema.tables WHERE table_schema = DATABASE()',
    );
    if (Number(n) > 0)
      throw new StartProblem(
        'The database is not empty. A backup is brought into an empty one: nothing is overwritten.',
      );
  } finally {
    await owner.destroy();
  }
  await bringBack(ownerUrl, file);
  await migrate(ownerUrl, databaseUrl);
  const source = await makeDataSource(databaseUrl, 2).initialize();
  try {
    return await verifyLedger(source, tell);
  } finally {
    await source.destroy();
  }
}
