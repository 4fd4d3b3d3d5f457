import { existsSync, renameSync } from 'node:fs';
import { ensureBuilt } from './lib/build.mjs';
import { commandLine } from './lib/command.mjs';
import { ROOT } from './lib/paths.mjs';
import { ensureModules, ensureNode } from './lib/prerequisites.mjs';
import { giveUp, say } from './lib/say.mjs';

const { words } = commandLine({
  name: 'rotate',
  does: 'Puts a new secret in place of one that others may have. pins: seals every PIN anew by PIN_SECRET that was sealed by PIN_SECRET_BEFORE, while servers run that have both. signing-key: makes a new key of checkpoints in CHECKPOINT_KEY_FILE and keeps the one before beside it; start the servers anew.',
  takes: ['pins|signing-key'],
  settings: ['DATABASE_URL', 'PIN_SECRET', 'PIN_SECRET_BEFORE', 'CHECKPOINT_KEY_FILE'],
});
ensureNode();
ensureModules(ROOT);
switch (words[0]) {
  case 'pins':
    await pins();
    break;
  case 'signing-key':
    await signingKey();
    break;
  default:
    giveUp(`There is no "${words[0]}" to rotate: pins, or signing-key. Nothing was done.`);
}

async function pins() {
  const now = needed('PIN_SECRET');
  const before = needed('PIN_SECRET_BEFORE');
  if (now === before) giveUp('PIN_SECRET and PIN_SECRET_BEFORE are the same. Nothing was done.');
  const url = needed('DATABASE_URL');
  ensureBuilt();
  const { makeDataSource } = await import('../server/dist/store/data-source.js');
  const { sealPinsAnew } = await import('../server/dist/store/pins.js');
  const source = await makeDataSource(url, 1).initialize();
  try {
    const { sealed, wereNew, locked } = await sealPinsAnew(source, { now, before });
    say(`${sealed} sealed anew, ${wereNew} were already.`);
    if (locked > 0) giveUp(`${locked} open by neither secret: keep looking for the one they were sealed by.`);
    say('PIN_SECRET_BEFORE is needed no more: take it out, and start the servers anew.');
  } finally {
    await source.destroy();
  }
}

async function signingKey() {
  const file = needed('CHECKPOINT_KEY_FILE');
  if (!existsSync(file)) giveUp(`${file} is not there: it is made at the first start. Nothing was done.`);
  ensureBuilt();
  const { signingKey: keyOf } = await import('../server/dist/ledger/signing-key.js');
  const before = await keyOf(file);
  const kept = `${file}.${before.name}`;
  if (existsSync(kept)) giveUp(`${kept} is there already. Nothing was done.`);
  renameSync(file, kept);
  const next = await keyOf(file);
  say(
    `The house signs as ${next.name} from the next start of its servers on; it was ${before.name}, whose key is kept in ${kept}.`,
  );
  say('Start every server anew, download a checkpoint, and tell whoever holds your checkpoints the new name.');
}

/** @param {string} name */
function needed(name) {
  const value = process.env[name];
  if (!value) giveUp(`${name} is not set. Nothing was done.`);
  return /** @type {string} */ (value);
}
