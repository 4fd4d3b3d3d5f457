import { ensureBuilt } from './lib/build.mjs';
import { ensureModules, ensureNode } from './lib/prerequisites.mjs';
import { ROOT } from './lib/paths.mjs';

ensureNode();
ensureModules(ROOT);
ensureBuilt();
