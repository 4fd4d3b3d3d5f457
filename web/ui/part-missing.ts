/** A part of the app that could not be fetched: the network is gone, or the house runs another release. */
export class PartMissing extends Error {
  constructor(cause: unknown) {
    super('a part of the app could not be fetched', { cause });
  }
}

/** The same fetch, whose failing is told apart from a fault in what was fetched. */
export const fetched =
  <T>(load: () => Promise<T>): (() => Promise<T>) =>
  () =>
    load().catch((cause: unknown) => {
      throw new PartMissing(cause);
    });
