import type { EvidenceData } from '../bench/evidence.js';
import type { VisitCheck } from '../setup/inputs/check-list.js';

/** A check that came out as it should; numbers are unlike those of any other unit. */
export const goodCheck = ({ id, asks }: VisitCheck, serial: string): EvidenceData['checkMade'] => ({
  check: id,
  outcome: 'good',
  figure: asks.kind === 'figure' ? (asks.from ?? asks.to ?? 3) : null,
  text: asks.kind === 'number' ? (asks.known?.[0] ?? `${asks.of}-${serial}`) : '',
  tool: asks.kind === 'figure' && asks.withTool ? 'wrench 3' : '',
  words: '',
});
