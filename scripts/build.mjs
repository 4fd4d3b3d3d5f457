import { ensureBuilt } from './lib/build.mjs';
import { commandLine } from './lib/command.mjs';
import { ensureModules, ensureNode } from './lib/prerequisites.mjs';
import { ROOT } from './lib/paths.mjs';

commandLine({ name: 'build', does: 'Builds what is older than its sources.' });
ensureNode();
ensureModules(ROOT);
ensureBuilt();
