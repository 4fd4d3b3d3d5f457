import { readFileSync } from 'node:fs';
import { ensureBuilt } from './lib/build.mjs';
import { commandLine } from './lib/command.mjs';
import { ROOT } from './lib/paths.mjs';
import { ensureModules, ensureNode } from './lib/prerequisites.mjs';
import { giveUp, say } from './lib/say.mjs';

const { options, words: files } = commandLine({
  name: 'verify',
  does: 'Checks exported records by themselves, without a server. Where a record brings its place in a checkpoint, that is checked too.',
  takes: ['FILE ...'],
  options: {
    key: {
      type: 'string',
      value: 'FILE',
      says: 'the key of a ledger (Ledger, Checkpoints, "Key"): who signed is checked',
    },
  },
});
const keyFile = options['key'] ?? null;
ensureNode();
ensureModules(ROOT);
ensureBuilt();
const { checkRecord, shortSeal } = await import('@decurio/core');
const { isSignedBy, readVerifierKey } = await import('../server/dist/ledger/signing-key.js');
const key = keyFile === null ? null : readVerifierKey(readFileSync(keyFile, 'utf8'));
if (keyFile !== null && key === null) giveUp(`${keyFile} holds no key of a ledger.`);

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
    if (!result.ok) return result;
    const { checkpoint } = result;
    if (key && !checkpoint) return { ok: false, says: 'It brings no checkpoint that the key could have signed.' };
    const isSigned =
      key && checkpoint?.signatures.some((each) => isSignedBy(key, checkpoint.text, each.keyAndSignature));
    if (key && !isSigned) return { ok: false, says: `Its checkpoint was not signed by ${key.name}.` };
    const within = checkpoint
      ? `, in the checkpoint of ${checkpoint.size} leaves of ${checkpoint.origin}${key ? ', signed by it' : ' (give its key by --key to see who signed it)'}`
      : ', without a checkpoint';
    return { ok: true, says: `${record.serial}, ${result.entries} entries, seal ${shortSeal(result.seal)}${within}` };
  } catch (error) {
    return { ok: false, says: error instanceof SyntaxError ? 'This is not a JSON file.' : String(error) };
  }
}
