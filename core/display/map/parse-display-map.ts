import { ValidationError } from 'yup';
import { tooMuch } from '../../bounded-json.js';
import type { Problem } from '../../result.js';
import { checkCodes } from './check-codes.js';
import { checkGestures } from './check-gestures.js';
import { checkMenu } from './check-menu.js';
import type { DisplayMap } from './display-map.js';
import { mapShape } from './map-shape.js';
import { fullMap, writtenPath } from './written-map.js';

export type ParsedMap =
  { readonly ok: true; readonly map: DisplayMap } | { readonly ok: false; readonly problems: readonly Problem[] };

/**
 * Reads a display map in the format `decurio-display-map/2`, or in the first, from parsed JSON.
 * @returns the whole map, what was left out filled in, or every problem found, each with a path into the JSON and a sentence.
 */
export function parseDisplayMap(data: unknown): ParsedMap {
  const bound = tooMuch(data);
  if (bound) return { ok: false, problems: [bound] };
  const full = fullMap(data);
  const shape = shapeProblems(full);
  if (shape.length > 0) return { ok: false, problems: atWritten(data, shape) };
  const map = full as DisplayMap;
  const problems = [...checkCodes(map), ...checkMenu(map), ...checkGestures(map)];
  return problems.length > 0 ? { ok: false, problems: atWritten(data, problems) } : { ok: true, map };
}

/** The same at the places where their cause is written: a table may stand as words, a line as its unit. */
const atWritten = (data: unknown, problems: readonly Problem[]): readonly Problem[] =>
  problems.map((problem) => (problem.path ? { ...problem, path: writtenPath(data, problem.path) } : problem));

function shapeProblems(data: unknown): readonly Problem[] {
  try {
    mapShape.validateSync(data, { abortEarly: false, strict: true });
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const all = error.inner.length > 0 ? error.inner : [error];
    return all.map((e) => ({ code: 'shape', path: e.path ?? '', message: sentence(e.message, e.path ?? '') }));
  }
}

function sentence(message: string, path: string): string {
  const own = path !== '' && message.startsWith(path) ? `This ${message.slice(path.length).trim()}` : message;
  return own.charAt(0).toUpperCase() + own.slice(1) + (own.endsWith('.') ? '' : '.');
}
