import { fastifySSE } from '@fastify/sse';
import type { FastifyInstance } from 'fastify';
import { changeFeed } from '../live/change-feed.js';
import { permit } from '../security/roles.js';
import { changesAfter, newestChange } from '../store/changes.js';

/** Missed by a screen that was away longer than this many changes: it asks for everything again. */
const REPLAYED_AT_MOST = 500;
const HEARTBEAT_MS = 15_000;
/** A stream that nobody ends is opened anew from time to time. */
const LONGEST_MS = 30 * 60_000;

/** Live changes as server-sent events. A screen that comes back says which change it saw last and hears the rest. */
export async function changeRoutes(app: FastifyInstance): Promise<void> {
  await app.register(fastifySSE, { heartbeatInterval: HEARTBEAT_MS });
  const feed = changeFeed(app.source, (error) => app.log.warn({ err: error }, 'changes could not be read'));
  app.addHook('preClose', async () => feed.close());

  app.get(
    '/changes',
    { sse: 'only', schema: { summary: 'Units and orders that move, as server-sent events' }, config: { act: 'look' } },
    async (request, reply) => {
      const { sse: stream } = reply;
      const { id: sessionId } = permit(request.session, 'look');
      stream.keepAlive();
      const send = (id: number, event: string, data: unknown) => {
        if (stream.isConnected) void stream.send({ id: String(id), event, data }).catch(() => undefined);
      };
      const stop = await feed.listen((change) => send(change.id, 'moved', change));
      const longest = setTimeout(() => stream.close(), LONGEST_MS);
      const forget = app.streams.add(sessionId, () => stream.close());
      stream.onClose(() => {
        stop();
        forget();
        clearTimeout(longest);
      });
      const lastSeen = Number(stream.lastEventId);
      if (stream.lastEventId === null || !Number.isInteger(lastSeen))
        return send(await newestChange(app.source), 'listening', {});
      const missed = await changesAfter(app.source, lastSeen, REPLAYED_AT_MOST + 1);
      if (missed.length > REPLAYED_AT_MOST) send(missed.at(-1)?.id ?? lastSeen, 'missed', {});
      else for (const change of missed) send(change.id, 'moved', change);
      send(await newestChange(app.source), 'listening', {});
    },
  );
}
