import type { FastifyBaseLogger } from 'fastify';
import type { DataSource } from 'typeorm';
import { catchUpAll } from '../store/behind-units.js';
import { eraseOld } from '../store/erase-personal.js';
import { makeCheckpoint } from '../ledger/checkpoints.js';
import type { SigningKey } from '../ledger/signing-key.js';
import { fillLeft } from '../store/left-rows.js';
import { markOpenVisits, markSealedBefore } from '../store/seal-heads.js';

const EVERY_MS = 5 * 60_000;

/**
 * What no request does: marks how far open visits have come, goes on with units that an act left behind, erases what was
 * kept of persons for as long as the house says, signs how far the ledger has come, and takes in what was sealed before it could be asked for. Any number
 * of processes may do so; each piece is done once. What fails is logged and done at the next round.
 * @returns how to stop
 */
export function keepHouse(source: DataSource, log: FastifyBaseLogger, key: SigningKey | null): () => void {
  let timer: NodeJS.Timeout | undefined;
  let isOver = false;
  const checkpoint = (of: DataSource): Promise<unknown> => (key === null ? Promise.resolve() : makeCheckpoint(of, key));
  const round = async (): Promise<void> => {
    for (const work of [markSealedBefore, markOpenVisits, catchUpAll, eraseOld, fillLeft, checkpoint]) {
      await work(source).catch((error: unknown) => {
        if (!isOver) log.warn({ err: error }, 'housekeeping could not be done');
      });
    }
    if (!isOver) timer = setTimeout(() => void round(), EVERY_MS);
  };
  void round();
  return () => {
    isOver = true;
    clearTimeout(timer);
  };
}
