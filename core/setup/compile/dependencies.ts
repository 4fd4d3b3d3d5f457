import { conditionsOf } from '../../display/map/shown-by.js';
import type { Influence } from '../../display/map/display-map.js';
import { formatRaw, greatestRawWithin, leastRawFrom } from '../../display/map/raw-value.js';
import { finding, willShow, type Draft, type Drafted } from './draft.js';
import type { Finding, KeyedAfter } from '../setup.js';
import { lineScale, step, type Wish } from './wish.js';

export interface Settled {
  readonly draft: Draft;
  readonly findings: readonly Finding[];
  readonly keyedAfter: readonly KeyedAfter[];
}

/**
 * Looks at codes that move others: a bound that a target would break, a value that falls back to the maker's when
 * another code is stored, an entry that is not shown. Brings targets within bounds, and asks for values that would be
 * lost to be keyed again.
 */
export function settleDependencies(draft: Draft): Settled {
  if (draft.codes.every(({ code }) => code.influences === undefined))
    return { draft, findings: hidden(draft), keyedAfter: [] };
  const codes = new Map(draft.codes.map((drafted) => [drafted.code.label, drafted]));
  const findings: Finding[] = [];
  const keyedAfter: KeyedAfter[] = [];
  for (const { code } of draft.codes) {
    for (const influence of code.influences ?? []) {
      const [cause, hit] = [codes.get(code.label), codes.get(influence.code)];
      if (!cause || !hit) continue;
      const moves = cause.wish.raw !== null && cause.wish.raw !== draft.work.found(cause.code);
      if (moves || influence.kind === 'limits')
        keyedAfter.push({ label: influence.code, after: code.label, because: REASONS[influence.kind] });
      const settled = settle(draft, cause, hit, influence, moves);
      if (settled.wish) codes.set(influence.code, { code: hit.code, wish: settled.wish });
      if (settled.finding) findings.push(settled.finding);
    }
  }
  const settledDraft = { ...draft, codes: [...codes.values()] };
  return { draft: settledDraft, findings: [...findings, ...hidden(settledDraft)], keyedAfter };
}

const REASONS: Readonly<Record<Influence['kind'], string>> = {
  limits: 'it bounds what this one may be',
  resets: "storing it brings this one back to the maker's value",
  converts: 'storing it converts this one to another unit',
};

function settle(
  draft: Draft,
  cause: Drafted,
  hit: Drafted,
  influence: Influence,
  moves: boolean,
): { readonly wish?: Wish; readonly finding?: Finding } {
  const shows = willShow(draft, hit);
  if (influence.kind === 'limits') {
    const bound = willShow(draft, cause);
    const breaks = influence.as === 'most' ? shows > bound : shows < bound;
    return breaks ? bring(cause, hit, bound, influence.as) : {};
  }
  if (!moves || hit.wish.raw !== null || hit.code.access !== 'open') return {};
  const found = draft.work.found(hit.code);
  const why = step(
    'display',
    `${cause.code.label} moves it when stored; keyed again as found, ${formatRaw(hit.code, found)}`,
  );
  return influence.kind === 'resets' && found !== hit.code.factory
    ? { wish: { ...hit.wish, raw: found, because: why.says, trail: [why] } }
    : {};
}

/** A value beyond its bound is brought to it. */
function bring(
  cause: Drafted,
  hit: Drafted,
  bound: number,
  as: 'most' | 'least',
): { readonly wish?: Wish; readonly finding?: Finding } {
  const meaning = bound * lineScale(hit.code);
  const raw = as === 'most' ? greatestRawWithin(hit.code, meaning) : leastRawFrom(hit.code, meaning);
  const side = as === 'most' ? 'above' : 'below';
  if (raw === undefined)
    return {
      finding: finding(
        'decide',
        'bound',
        hit.code.label,
        `${hit.code.label} cannot lie ${side} ${cause.code.label}, which is ${formatRaw(cause.code, bound)}; it has no such value.`,
      ),
    };
  const why = step(
    'display',
    `${hit.code.label} never lies ${side} ${cause.code.label}, so ${formatRaw(hit.code, raw)}.`,
  );
  return {
    wish: {
      ...hit.wish,
      raw,
      because: hit.wish.raw === null ? why.says : `${hit.wish.because} ${why.says}`,
      trail: [...(hit.wish.trail ?? []), why],
    },
  };
}

/** Entries that the display shows only while another code has certain values. */
function hidden(draft: Draft): readonly Finding[] {
  return draft.codes.flatMap(({ code, wish }) => {
    const condition = conditionsOf(draft.work.map).get(code.label);
    const gate = condition && draft.codes.find((other) => other.code.label === condition.code);
    if (wish.raw === null || !gate || condition.in.includes(willShow(draft, gate))) return [];
    return [
      finding(
        'note',
        'hidden',
        code.label,
        `${code.label} is not shown while ${gate.code.label} is ${formatRaw(gate.code, willShow(draft, gate))}: it is keyed before, or stays as found.`,
      ),
    ];
  });
}
