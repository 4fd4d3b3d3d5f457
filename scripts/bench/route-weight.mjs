import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../lib/paths.mjs';

const APP = join(ROOT, 'web', 'dist', 'app');

/**
 * JavaScript that each route loads when it is the first one, compressed with gzip as it is served.
 * @returns {{ route: string, gzipBytes: number, brotliBytes: number }[]}
 */
export function routeWeights() {
  /** @type {Record<string, { file: string, imports?: string[], isEntry?: boolean, isDynamicEntry?: boolean, src?: string }>} */
  const manifest = JSON.parse(readFileSync(join(APP, '.vite', 'manifest.json'), 'utf8'));
  const entry = Object.keys(manifest).find((key) => manifest[key]?.isEntry) ?? 'index.html';
  /** @param {string} key @param {Set<string>} seen @returns {Set<string>} */
  const filesOf = (key, seen = new Set()) => {
    const chunk = manifest[key];
    if (!chunk || seen.has(chunk.file)) return seen;
    seen.add(chunk.file);
    for (const other of chunk.imports ?? []) filesOf(other, seen);
    return seen;
  };
  const routes = Object.keys(manifest).filter((key) => manifest[key]?.isDynamicEntry && /-(page|home)\.tsx$/.test(key));
  return [['sign-in', entry], ...routes.map((key) => [key.replace(/\.tsx$/, ''), key])].map(
    ([route = '', key = '']) => {
      const files = [...new Set([...filesOf(entry), ...filesOf(key)])].filter((file) => file.endsWith('.js'));
      /** @param {string} ending */
      const sum = (ending) => files.reduce((total, file) => total + readFileSync(join(APP, file + ending)).length, 0);
      return { route, gzipBytes: sum('.gz'), brotliBytes: sum('.br') };
    },
  );
}
