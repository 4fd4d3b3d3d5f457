import type { StatusView } from '@decurio/contract';
import type { DataSource } from 'typeorm';

const NOW_SQL = `SELECT
    (SELECT COUNT(DISTINCT accountId) FROM session WHERE expiresAt > UTC_TIMESTAMP(3)) AS signedIn,
    (SELECT COUNT(*) FROM visit v JOIN unit u ON u.visitId = v.id WHERE v.sealedAt IS NULL AND u.status IN ('open', 'held')) AS openVisits,
    (SELECT COALESCE(SUM(held), 0) FROM customer_order) AS held,
    (SELECT at FROM line_change ORDER BY id DESC LIMIT 1) AS lastEntryAt,
    (SELECT ROUND(SUM(data_length + index_length) / 1000000) FROM information_schema.tables WHERE table_schema = DATABASE()) AS sizeMb,
    VERSION() AS version`;

interface NowRow {
  readonly signedIn: string;
  readonly openVisits: string;
  readonly held: string;
  readonly lastEntryAt: Date | null;
  readonly sizeMb: string;
  readonly version: string;
}

/** How the house runs, as far as its database tells. */
export async function houseStatus(
  source: DataSource,
): Promise<Pick<StatusView, 'database' | 'now' | 'lastEntryAt' | 'lastSeal' | 'lastCheckpoint'>> {
  const [row] = await source.query<NowRow[]>(NOW_SQL);
  const [seal] = await source.query<{ at: Date; serial: string }[]>(
    'SELECT sealedAt AS at, serial FROM visit WHERE sealedAt IS NOT NULL ORDER BY sealedAt DESC, id DESC LIMIT 1',
  );
  const [checkpoint] = await source.query<{ at: Date; size: string }[]>(
    'SELECT at, size FROM checkpoint ORDER BY size DESC LIMIT 1',
  );
  return {
    database: {
      version: row?.version ?? '',
      sizeMb: Number(row?.sizeMb ?? 0),
      cluster: await clusterOf(source),
    },
    now: {
      signedIn: Number(row?.signedIn ?? 0),
      openVisits: Number(row?.openVisits ?? 0),
      held: Number(row?.held ?? 0),
    },
    lastEntryAt: row?.lastEntryAt?.toISOString() ?? null,
    lastSeal: seal ? { at: seal.at.toISOString(), serial: seal.serial } : null,
    lastCheckpoint: checkpoint ? { at: checkpoint.at.toISOString(), size: Number(checkpoint.size) } : null,
  };
}

async function clusterOf(source: DataSource): Promise<StatusView['database']['cluster']> {
  const rows = await source.query<{ Variable_name: string; Value: string }[]>(
    "SHOW STATUS WHERE Variable_name IN ('wsrep_cluster_size', 'wsrep_cluster_status', 'wsrep_connected')",
  );
  const of = new Map(rows.map((row) => [row.Variable_name, row.Value]));
  if (of.get('wsrep_connected') !== 'ON') return null;
  return { nodes: Number(of.get('wsrep_cluster_size') ?? 0), isPrimary: of.get('wsrep_cluster_status') === 'Primary' };
}
