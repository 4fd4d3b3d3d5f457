import { readFileSync } from 'node:fs';
import { ensureBuilt } from './lib/build.mjs';
import { ROOT } from './lib/paths.mjs';
import { ensureModules, ensureNode } from './lib/prerequisites.mjs';
import { giveUp, say } from './lib/say.mjs';

/** Checks exported records by themselves, without a server: npm run verify -- FILE ... */
const files = process.argv.slice(2);
if (files.length === 0) giveUp('Name the record files: npm run verify -- S26-0401-record.json');
ensureNode();
ensureModules(ROOT);
ensureBuilt();
const { checkRecord, shortSeal } = await import('@decurio/core');

let broken = 0;
for (const file of files) {
  const result = check(file);
  if (!result.ok) broken++;
  say(`${result.ok ? 'holds ' : 'BROKEN'}  ${file}  ${result.says}`);
}
process.exit(broken === 0 ? 0 : 1);

/** @param {string} file */
function check(file) {
  try {
    const record = JSON.parse(readFileSync(file, 'utf8'));
    const result = checkRecord(record);
    return result.ok
      ? { ok: true, says: `${record.serial}, ${result.entries} entries, seal ${shortSeal(result.seal)}` }
      : result;
  } catch (error) {
    return { ok: false, says: error instanceof SyntaxError ? 'This is not a JSON file.' : String(error) };
  }
}
