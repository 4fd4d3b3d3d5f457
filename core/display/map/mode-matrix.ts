import type { Code } from './code.js';
import { codeTitle } from './code-title.js';
import type { DisplayMap } from './display-map.js';

/** One entry that every ride mode has in a list of its own. */
export interface MatrixEntry {
  /** As the glass shows it in each of the lists. */
  readonly shownAs: string;
  readonly title: string;
  /** Its code in each mode, in the order of the modes; null where a mode has no such entry. */
  readonly codes: readonly (Code | null)[];
}

/** Codes of a display with lists per ride mode: entries down, modes across. */
export interface ModeMatrix {
  readonly modes: readonly { readonly id: string; readonly title: string }[];
  readonly entries: readonly MatrixEntry[];
}

/**
 * Lays out what a display keeps once per ride mode, in the order of its lists.
 * @returns null where it has no lists per mode
 */
export function modeMatrix(map: DisplayMap): ModeMatrix | null {
  const modes = map.ride?.modes?.list ?? [];
  const pages = map.menu?.pages.filter((page) => page.mode !== undefined) ?? [];
  if (modes.length < 2 || pages.length === 0) return null;
  const byLabel = new Map(map.codes.map((code) => [code.label, code]));
  const entries = new Map<string, MatrixEntry & { codes: (Code | null)[] }>();
  for (const page of pages) {
    const at = modes.findIndex(({ id }) => id === page.mode);
    for (const item of page.items) {
      const code = 'code' in item ? byLabel.get(item.code) : undefined;
      if (!code) continue;
      const shownAs = code.shownAs ?? code.label;
      const title = codeTitle(code);
      const key = `${shownAs} ${title}`;
      const entry = entries.get(key) ?? { shownAs, title, codes: modes.map(() => null) };
      entry.codes[at] = code;
      entries.set(key, entry);
    }
  }
  return { modes, entries: [...entries.values()] };
}
