import { parseArgs } from 'node:util';
import { giveUp, say } from './say.mjs';

/**
 * @typedef {{ type: 'boolean' | 'string', says: string, value?: string, multiple?: boolean }} CommandOption
 *   `value`: what its value is called
 * @typedef {object} CommandLine
 * @property {Record<string, any>} options by name; a boolean that was not given is undefined
 * @property {string[]} words what was given beside them
 */

/**
 * Reads how a command was called. `--help` prints what it does and ends it; an option that it does not know, or one word
 * too many, ends it before anything was done.
 * @param {object} command
 * @param {string} command.name as npm runs it
 * @param {string} command.does one sentence or two
 * @param {string[]} [command.takes] what its words are called, in their order; those in brackets may be left out, and the
 *   last may be followed by as many more where it ends in dots
 * @param {Record<string, CommandOption>} [command.options]
 * @param {string[]} [command.settings] environment variables that it reads
 * @returns {CommandLine}
 */
export function commandLine({ name, does, takes = [], options = {}, settings = [] }) {
  const usage = [
    `npm run ${name} --`,
    ...takes,
    ...Object.entries(options).map(([option, { value }]) => `[--${option}${value ? ` ${value}` : ''}]`),
  ];
  const call = takes.length + Object.keys(options).length === 0 ? `npm run ${name}` : usage.join(' ');
  const isOpen = takes.at(-1)?.replace(']', '').endsWith('...') === true;
  const { values, positionals } = parsed(name, options);
  if (values['help']) {
    say(
      [
        call,
        '',
        does,
        ...lines('Options', Object.entries(options), ([option, { says }]) => [`--${option}`, says]),
        ...(settings.length === 0 ? [] : ['', `It reads ${settings.join(', ')} from the environment.`]),
      ].join('\n'),
    );
    process.exit(0);
  }
  const least = takes.filter((word) => !word.startsWith('[')).length;
  const isOdd = positionals.length < least || (positionals.length > takes.length && !isOpen);
  if (isOdd) giveUp(`${call}\n${does} Nothing was done.`);
  return { options: values, words: positionals };
}

/** @param {string} name @param {Record<string, CommandOption>} options */
function parsed(name, options) {
  try {
    return parseArgs({
      options: {
        ...Object.fromEntries(
          Object.entries(options).map(([option, { type, multiple = false }]) => [option, { type, multiple }]),
        ),
        help: { type: 'boolean', short: 'h' },
      },
      allowPositionals: true,
    });
  } catch (error) {
    const said = /** @type {Error} */ (error).message.split('. ')[0];
    return giveUp(`${said}. npm run ${name} -- --help says what there is. Nothing was done.`);
  }
}

/** @template T @param {string} title @param {T[]} all @param {(each: T) => [string, string]} line */
function lines(title, all, line) {
  if (all.length === 0) return [];
  const pairs = all.map(line);
  const wide = Math.max(...pairs.map(([left]) => left.length));
  return ['', `${title}:`, ...pairs.map(([left, right]) => `  ${left.padEnd(wide)}  ${right}`)];
}
