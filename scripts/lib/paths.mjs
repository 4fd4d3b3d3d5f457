import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..', '..');
/** Everything that a start command makes and git does not see. */
export const STATE = join(ROOT, '.decurio');
