import { writtenMap, type DisplayMap } from '@decurio/core';

/** Fields in the order in which a person reads and writes them, whatever order they were stored in. */
const ORDER: readonly string[] = `
  format id name revision family tellBy tells fact shows label shownAs kind style key keys ms power ride icons speed menu instructions restart dangers codes notes confirmed does needs onlyIf icon aloneMs underMs lasts firmware readOut
  function first on off offInMenu by opens pin close pages turns gesture from to next previous afterLast pick edit select begin end abandon asks asksIf asksPin up down count back walk enter wrong lock after
  values repeat delayMs everyMs store message pause does text idle browseMs editMs pinMs unstored reopensAt levels modes acts list most mostBy wakesAt wakesIn title mode neverEnter items code page back exit
  range min max step rounding decimals overshootKmh otherRanges when skips factory words unit encoding entries second turned raw value means scale unit follows sentinels doubtfulFrom
  access effect actsAfter keptIn more action shows doubts shownIf deadIf influences wheelTable source note
`
  .trim()
  .split(/\s+/);

const rank = new Map(ORDER.map((name, i) => [name, i]));

/**
 * A map as JSON text to be read and edited: what is nearly always the same left out, fields in a sensible order, short
 * lists on one line.
 */
export const mapText = (map: DisplayMap): string => writtenText(writtenMap(map));

/** A map as it is written, whatever shape it has just now, as such text. */
export const writtenText = (written: unknown): string => text(written, '');

const LINE = 110;

function text(value: unknown, indent: string): string {
  if (typeof value !== 'object' || value === null) return JSON.stringify(value);
  const flat = inLine(value);
  if (flat.length + indent.length <= LINE && !isTopLevel(value)) return flat;
  const inner = `${indent}  `;
  if (Array.isArray(value)) return `[\n${value.map((one) => inner + text(one, inner)).join(',\n')}\n${indent}]`;
  return `{\n${fields(value)
    .map(([name, one]) => `${inner}${JSON.stringify(name)}: ${text(one, inner)}`)
    .join(',\n')}\n${indent}}`;
}

const isTopLevel = (value: object): boolean => 'format' in value;

const fields = (value: object): [string, unknown][] =>
  (Object.entries(value) as [string, unknown][]).sort(
    ([a], [b]) => (rank.get(a) ?? ORDER.length) - (rank.get(b) ?? ORDER.length) || (a < b ? -1 : 1),
  );

function inLine(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(inLine).join(', ')}]`;
  if (typeof value !== 'object' || value === null) return JSON.stringify(value);
  const all = fields(value);
  return all.length === 0
    ? '{}'
    : `{ ${all.map(([name, one]) => `${JSON.stringify(name)}: ${inLine(one)}`).join(', ')} }`;
}
