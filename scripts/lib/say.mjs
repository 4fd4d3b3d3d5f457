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

/** Why a start command cannot go on, in a sentence that says the way out. */
export class StartProblem extends Error {}

/**
 * Runs what a start command does. A problem that it foresaw is said in its own words, anything else is a fault of ours;
 * either way nothing is left running.
 * @template T @param {() => Promise<T>} work @param {() => Promise<void>} [cleanUp] @returns {Promise<T>}
 */
export async function starting(work, cleanUp = async () => undefined) {
  try {
    return await work();
  } catch (error) {
    await cleanUp();
    if (error instanceof StartProblem) return giveUp(error.message);
    throw error;
  }
}
