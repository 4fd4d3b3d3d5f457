/*
 * Bounds that pages say before anything is sent. They stand apart from the shapes that check them: every page asks for
 * them, and none needs those for it.
 */

/** So many entries that waited are sent at once. */
export const MOST_ENTRIES = 20;

/** Letters of a password. */
export const PASSWORD_LENGTH = { least: 10, most: 200 } as const;
