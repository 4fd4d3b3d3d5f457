import { randomUUID } from 'node:crypto';
import { setTimeout as after } from 'node:timers/promises';
import helmet from '@fastify/helmet';
import Fastify, { type FastifyInstance } from 'fastify';
import type { DataSource } from 'typeorm';
import type { Config } from './config.js';
import { answerBroken, handleError, nothingHere } from './error-handler.js';
import { accountRoutes } from './routes/accounts.js';
import { benchRoutes } from './routes/bench.js';
import { handoverRoutes } from './routes/handover.js';
import { paperRoutes } from './routes/papers.js';
import { familyRoutes } from './routes/families.js';
import { houseRoutes } from './routes/house.js';
import { changeRoutes } from './routes/changes.js';
import { disputeRoutes } from './routes/disputes.js';
import { healthRoutes } from './routes/health.js';
import { intakeRoutes } from './routes/intakes.js';
import { signingKey, type SigningKey } from './ledger/signing-key.js';
import { ledgerRoutes } from './routes/ledger.js';
import { machineRoutes } from './routes/machines.js';
import { movedRoutes } from './routes/moved.js';
import { qualityRoutes } from './routes/quality.js';
import { archiveRoutes } from './routes/archives.js';
import { libraryRoutes } from './routes/library.js';
import { describeApi } from './routes/openapi.js';
import { orderRoutes } from './routes/orders.js';
import { planRoutes } from './routes/plan.js';
import { paceRoutes } from './routes/pace.js';
import { statusRoutes } from './routes/status.js';
import { trialRoutes } from './routes/trials.js';
import { personalRoutes } from './routes/personal.js';
import { photoRoutes } from './routes/photos.js';
import { sessionRoutes } from './routes/session.js';
import { serveWeb } from './routes/web.js';
import { access } from './security/access.js';
import { sessions } from './security/sessions.js';
import { sessionStreams, type SessionStreams } from './live/session-streams.js';
import { makePrinter, type Printer } from './papers/printer.js';
import { makePlanner, type Planner } from './planning/planner.js';
import { makeReaders, type Readers } from './reading/readers.js';
import { openBounded } from './store/data-source.js';
import { limitTime } from './time-limit.js';
import { metrics } from './live/metrics.js';
import { readTls } from './tls.js';
import { takeJson, validateWithYup } from './validation.js';

declare module 'fastify' {
  interface FastifyInstance {
    source: DataSource;
    streams: SessionStreams;
    readers: Readers;
    printer: Printer;
    planner: Planner;
    /** By which checkpoints are signed; null where the house makes none. */
    signingKey: SigningKey | null;
  }
}

const JSON_LIMIT_BYTES = 256 * 1024;
const CLOSE_MS = 3_000;
const HSTS_S = 365 * 24 * 3600;

/** Builds the server on a migrated database. Close it to give the connections back. */
export async function buildApp(config: Config): Promise<FastifyInstance> {
  const { headersMs: headersTimeout, lookMs: connectionsCheckingInterval } = config.limits;
  const timeouts = { headersTimeout, connectionsCheckingInterval };
  const options = {
    logger: config.logLevel === 'silent' ? false : { level: config.logLevel },
    bodyLimit: JSON_LIMIT_BYTES,
    trustProxy: config.trustedProxies.length === 0 ? false : [...config.trustedProxies],
    forceCloseConnections: true,
    requestTimeout: config.limits.requestMs,
    frameworkErrors: handleError,
    clientErrorHandler: answerBroken,
    // By which an answer is found again in the log; what a sender calls it is not believed.
    genReqId: () => randomUUID(),
    requestIdHeader: false as const,
  };
  const app =
    config.tls === null
      ? Fastify({ ...options, http: timeouts })
      : (Fastify({ ...options, https: { ...timeouts, ...readTls(config.tls) } }) as unknown as FastifyInstance);
  app.server.maxConnections = config.limits.connections;
  const source = await openBounded(config.databaseUrl);
  app.removeContentTypeParser('text/plain');
  takeJson(app);
  const readers = makeReaders({ onError: (error) => app.log.warn({ err: error }, 'a thread that reads files ended') });
  app.decorate('readers', readers);
  app.addHook('onClose', () => readers.close());
  const printer = makePrinter({ onError: (error) => app.log.warn({ err: error }, 'a thread that draws papers ended') });
  app.decorate('printer', printer);
  app.addHook('onClose', () => printer.close());
  const planner = makePlanner({ onError: (error) => app.log.warn({ err: error }, 'a thread that plans ended') });
  app.decorate('planner', planner);
  app.addHook('onClose', () => planner.close());
  app.decorate('signingKey', config.checkpointKeyFile === null ? null : await signingKey(config.checkpointKeyFile));
  app.decorate('source', source);
  const streams = sessionStreams(source, (error) => app.log.warn({ err: error }, 'sessions could not be read'));
  app.decorate('streams', streams);
  app.addHook('preClose', async () => streams.close());
  // Connections that are gone, or hang, must not keep a server that is told to stop.
  app.addHook('onClose', () =>
    Promise.race([source.destroy().catch(() => undefined), after(CLOSE_MS, undefined, { ref: false })]),
  );
  app.setErrorHandler(handleError);
  validateWithYup(app);
  limitTime(app, config.limits.handlerMs);
  await app.register(helmet, {
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        upgradeInsecureRequests: config.secureCookie ? [] : null,
      },
    },
    strictTransportSecurity: config.secureCookie ? { maxAge: HSTS_S, includeSubDomains: false } : false,
  });
  await app.register(sessions, { config });
  await app.register(access, { config });
  await describeApi(app);
  if (config.metricsToken !== null) await app.register(metrics, { token: config.metricsToken });
  await app.register(
    async (api) => {
      await api.register(healthRoutes);
      await api.register(sessionRoutes, { config });
      await api.register(accountRoutes);
      await api.register(machineRoutes);
      await api.register(statusRoutes, { config });
      await api.register(libraryRoutes);
      await api.register(disputeRoutes);
      await api.register(trialRoutes);
      await api.register(paceRoutes);
      await api.register(intakeRoutes);
      await api.register(orderRoutes, { pinSecrets: { now: config.pinSecret, before: config.pinSecretBefore } });
      await api.register(benchRoutes);
      await api.register(handoverRoutes);
      await api.register(paperRoutes);
      await api.register(photoRoutes);
      await api.register(changeRoutes);
      await api.register(familyRoutes);
      await api.register(houseRoutes);
      await api.register(personalRoutes);
      await api.register(ledgerRoutes);
      await api.register(movedRoutes);
      await api.register(qualityRoutes);
      await api.register(archiveRoutes);
      await api.register(planRoutes);
    },
    { prefix: '/api' },
  );
  if (config.webRoot === null) app.setNotFoundHandler(nothingHere);
  else await serveWeb(app, config.webRoot);
  return app;
}
