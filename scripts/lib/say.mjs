/** Prints a line of a start command.
 * @param {string} text */
export const say = (text) => process.stdout.write(`${text}\n`);

/** Prints what went wrong and what to do, and ends the command.
 * @param {string} text
 * @returns {never} */
export function giveUp(text) {
  process.stderr.write(`${text}\n`);
  process.exit(1);
}
