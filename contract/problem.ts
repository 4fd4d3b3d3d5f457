/** The one shape in which the server says that something did not work. */
export interface ErrorBody {
  readonly error: {
    /** Stable, for programs: `staleSeq`, `signedOut`, `tooLarge`. */
    readonly code: string;
    /** For people: what happened, what is safe, what to do. */
    readonly message: string;
    /** Problems per field of the request, by path. */
    readonly fields?: Readonly<Record<string, string>>;
  };
}

/** One page of a list read by key; `next` asks for the page after it, null on the last. */
export interface Page<T> {
  readonly items: readonly T[];
  readonly next: string | null;
}
