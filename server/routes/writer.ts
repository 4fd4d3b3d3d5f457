import type { FastifyRequest } from 'fastify';
import { permit, type Act } from '../security/roles.js';
import type { Writer } from '../store/writer.js';

/** A stand's clock that is off by more than this is noted in what it writes. */
const NOTED_S = 180;
/** No clock is further off than some decades; what says so is no clock. */
const BELIEVED_S = 1e9;

/** Who writes, from where, and how far off the clock there is. */
export function writerOf(request: FastifyRequest, act: Act): Writer {
  const { userId, name, nameSha256, role, station } = permit(request.session, act);
  const off = clockOffS(request.headers['x-stand-clock']);
  return { by: { userId, name, nameSha256, role }, station, ...(off === null ? {} : { clockOffS: off }) };
}

/** @param said milliseconds since 1970 by the stand's clock as it sent this */
function clockOffS(said: string | string[] | undefined): number | null {
  if (typeof said !== 'string' || !/^\d{1,16}$/.test(said)) return null;
  const off = Math.round((Number(said) - Date.now()) / 1000);
  return Math.abs(off) > NOTED_S && Math.abs(off) < BELIEVED_S ? off : null;
}
