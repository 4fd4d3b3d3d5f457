import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..', '..');
/** Everything that a start command makes and git does not see; elsewhere where DECURIO_STATE says so. */
export const STATE = process.env['DECURIO_STATE'] ?? join(ROOT, '.decurio');
/** Where the demo puts order files for a person to drop: in sight, not under a hidden folder. */
export const TO_DROP = process.env['DECURIO_STATE'] ? join(STATE, 'to-drop') : join(ROOT, 'demo', 'to-drop');
