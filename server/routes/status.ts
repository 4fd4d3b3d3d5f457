import type { FastifyInstance } from 'fastify';
import type { StatusView } from '@decurio/contract';
import type { Config } from '../config.js';
import { examine } from '../doctor/examine.js';
import { houseStatus } from '../store/house-status.js';

/** How the house runs, in words, for its owner. */
export async function statusRoutes(app: FastifyInstance, { config }: { readonly config: Config }): Promise<void> {
  const startedAt = new Date().toISOString();
  app.get(
    '/status',
    { schema: { summary: 'How the house runs, and what is amiss' }, config: { act: 'keepHouse' } },
    async (): Promise<StatusView> => {
      const [status, findings] = await Promise.all([
        houseStatus(app.source),
        examine({ config, given: config.given, nodeVersion: process.version, nowMs: Date.now() }),
      ]);
      return {
        server: {
          startedAt,
          node: process.version,
          memoryMb: Math.round(process.memoryUsage().rss / 1e6),
          streams: app.streams.count(),
        },
        ...status,
        findings,
      };
    },
  );
}
