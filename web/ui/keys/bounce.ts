/** ms that a key rests, until the house has said. */
const UNTIL_SAID_MS = 250;

/**
 * Lets a key act once per press: a worn switch or a trembling hand sends one press twice. After an act its key rests,
 * and after a change of what is shown all keys do: a press that was on its way was meant for what stood there before.
 * Times in ms of one clock.
 */
export class Bounce {
  private readonly actedAt = new Map<string, number>();
  private shownAt = -Infinity;

  constructor(private restMs: number) {}

  restFor(ms: number): void {
    this.restMs = ms;
  }

  /** What the keys act upon is another one now. */
  shownAnew(now: number): void {
    this.shownAt = now;
  }

  /** ms until this key acts again; 0 when it may. */
  restsFor(key: string, now: number): number {
    const since = Math.max(this.shownAt, this.actedAt.get(key) ?? -Infinity);
    return Math.max(0, since + this.restMs - now);
  }

  /** Whether this key acts now; if so it rests from now on. */
  mayAct(key: string, now: number): boolean {
    if (this.restsFor(key, now) > 0) return false;
    this.actedAt.set(key, now);
    return true;
  }
}

const bounce = new Bounce(UNTIL_SAID_MS);
/** The one that means "done, next". */
const DONE = 'Space';
let ends: ReturnType<typeof setTimeout> | undefined;

/** Says on the page that keys rest: the key caps show it. */
function showRest(): void {
  clearTimeout(ends);
  const leftMs = bounce.restsFor(DONE, performance.now());
  document.documentElement.toggleAttribute('data-keys-rest', leftMs > 0);
  if (leftMs > 0) ends = setTimeout(showRest, leftMs);
}

/** As the house wants it. */
export function keysRestFor(ms: number): void {
  bounce.restFor(ms);
}

/** What the keys of this page act upon has changed. */
export function shownAnew(): void {
  bounce.shownAnew(performance.now());
  showRest();
}

/** Whether a key, or a finger on the button that does the same, acts now. */
export function mayAct(key: string = DONE): boolean {
  const may = bounce.mayAct(key, performance.now());
  showRest();
  return may;
}
