/** What was looked at, how it stands, and what to do where it does not. */
export interface StatusFinding {
  readonly of: string;
  readonly grade: 'good' | 'look' | 'amiss';
  readonly says: string;
}

/** How the house runs, for its owner. */
export interface StatusView {
  /** The process that answered; another may answer next. */
  readonly server: {
    readonly startedAt: string;
    readonly node: string;
    readonly memoryMb: number;
    /** Screens that hear of changes by this process. */
    readonly streams: number;
  };
  readonly database: {
    readonly version: string;
    readonly sizeMb: number;
    /** Of a cluster, how many nodes it sees and whether they are most of all; null where there is none. */
    readonly cluster: { readonly nodes: number; readonly isPrimary: boolean } | null;
  };
  readonly now: { readonly signedIn: number; readonly openVisits: number; readonly held: number };
  readonly lastEntryAt: string | null;
  readonly lastSeal: { readonly at: string; readonly serial: string } | null;
  /** Null where none was made. */
  readonly lastCheckpoint: { readonly at: string; readonly size: number } | null;
  readonly findings: readonly StatusFinding[];
}
