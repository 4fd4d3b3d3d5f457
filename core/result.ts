/** A sentence about something a person can put right, with a stable code and, where it helps, the place. */
export interface Problem {
  readonly code: string;
  readonly message: string;
  /** Where in the given data, as a path such as `codes[3].range.min`. */
  readonly path?: string;
}

/** Outcome of an operation that bad input can defeat; a thrown error is a bug instead. */
export type Result<T, P = Problem> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: P };

export const ok = <T>(value: T): { readonly ok: true; readonly value: T } => ({ ok: true, value });

/** The value of what cannot be refused, because it was looked at before. @throws Error where it was refused all the same: a bug */
export function certain<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(`${result.problem.code}: ${result.problem.message}`);
  return result.value;
}

export const refuse = (code: string, message: string): { readonly ok: false; readonly problem: Problem } => ({
  ok: false,
  problem: { code, message },
});
