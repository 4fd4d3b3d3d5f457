import { describe, expect, it } from 'vitest';
import { reach, type ReachState } from './reach.js';
import { isAway } from './ask-server.js';

const { answered, unanswered, shownKept } = reach.actions;
const after = (...acts: Parameters<typeof reach.reducer>[1][]): ReachState =>
  acts.reduce(reach.reducer, reach.getInitialState());

describe('whether the server answers', () => {
  it('counts from the first time it did not, until it does', () => {
    expect(after(unanswered(5), unanswered(9)).awaySince).toBe(5);
    expect(after(unanswered(5), answered(), unanswered(9)).awaySince).toBe(9);
    expect(after(answered())).toBe(reach.getInitialState());
  });

  it('says how old the oldest is that stands in for an answer', () => {
    expect(after(unanswered(9), shownKept(7), shownKept(3), shownKept(8)).shownAsOf).toBe(3);
    expect(after(unanswered(9), shownKept(3), answered()).shownAsOf).toBeNull();
  });

  it('is no when nobody answered who could, and yes when it refused or was busy', () => {
    const problem = (status: number, code = 'any') => ({ status, code, message: '' });
    expect([0, 502, 504].map((status) => isAway(problem(status)))).toEqual([true, true, true]);
    expect(isAway(problem(503, 'databaseAway'))).toBe(true);
    expect([401, 404, 409, 422, 429, 500, 503].some((status) => isAway(problem(status)))).toBe(false);
  });
});
