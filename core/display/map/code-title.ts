import type { Code } from './code.js';
import { functionTitle } from './functions.js';

/** What a code sets as a technician reads it, with its motor where there are two: `Current of a mode, rear motor`. */
export const codeTitle = ({ function: what, motor }: Pick<Code, 'function' | 'motor'>): string =>
  motor === undefined ? functionTitle(what) : `${functionTitle(what)}, ${motor} motor`;
