import { foldVisit, proofsOf } from '@decurio/core';
import { DEMO_PASSWORD } from '../../server/dist/demo-password.js';
import { signIn } from '../lib/api-client.mjs';
import { msOf } from './timing.mjs';

/** As many as the server has threads for papers, and as the order's page asks for. */
const AT_ONCE = 2;
const DRAWN = 60;
const UNITS = 300;

/**
 * How long papers take, asked for as the page asks: one certificate, many, and all papers of 300 units; beside as many
 * bare replies.
 * @param {string} address @param {string} bareUrl
 */
export async function paperFigures(address, bareUrl) {
  const teo = await signIn(address, 'teo', DEMO_PASSWORD, 'bay 1');
  const { items } = await teo.get('/api/ledger');
  /** @type {{ visitId: string, proofs: number }[]} */
  const sealed = [];
  for (const { visitId } of items) {
    const fold = foldVisit((await teo.get(`/api/visits/${visitId}`)).evidence);
    if (fold.ok) sealed.push({ visitId, proofs: proofsOf(fold.value).length });
  }
  const longest = sealed.toSorted((a, b) => b.proofs - a.proofs)[0]?.visitId ?? '';
  /** @param {string} visitId @param {string} paper */
  const draw = async (visitId, paper) => {
    const answer = await fetch(`${address}/api/visits/${visitId}/${paper}.pdf`, { headers: { cookie: teo.cookie } });
    if (!answer.ok) throw new Error(`${answer.status} ${paper}`);
    return (await answer.arrayBuffer()).byteLength;
  };
  /** @param {number} count @param {(i: number) => Promise<unknown>} ask */
  const all = async (count, ask) => {
    let next = 0;
    const lane = async () => {
      while (next < count) await ask(next++);
    };
    return msOf(() => Promise.all(Array.from({ length: AT_ONCE }, lane)));
  };
  const bare = async () => (await fetch(bareUrl)).text();
  await all(20, () => draw(longest, 'certificate'));
  const ones = [];
  for (let i = 0; i < 21; i++) ones.push(await msOf(() => draw(longest, 'certificate')));
  return {
    oneMs: ones.toSorted((a, b) => a - b)[10] ?? 0,
    aSecond: (1000 * DRAWN) / (await all(DRAWN, () => draw(longest, 'certificate'))),
    orderS: (await all(UNITS, (i) => draw(sealed[i % sealed.length]?.visitId ?? longest, 'papers'))) / 1000,
    bareOneMs: (await all(DRAWN, bare)) / DRAWN,
    bareASecond: (1000 * UNITS) / (await all(UNITS, bare)),
    bareOrderS: (await all(UNITS, bare)) / 1000,
    proofs: Math.max(...sealed.map(({ proofs }) => proofs)),
  };
}
