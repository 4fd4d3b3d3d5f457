import { spawnSync } from 'node:child_process';
import { chmodSync, closeSync, mkdirSync, openSync, rmSync, statfsSync, writeSync } from 'node:fs';
import { join } from 'node:path';

/** A disk that can be filled without harm to the machine. */
export interface SmallDisk {
  readonly home: string;
  readonly fill: () => void;
  readonly empty: () => void;
  readonly remove: () => void;
}

const SIZE_MB = 640;
const CHUNK = Buffer.alloc(1024 * 1024);
/** Left free: the daemon's log of its own troubles. */
const LEFT_BYTES = 128 * 1024;

/** Makes one in memory; null where whoever runs this may not. */
export function makeSmallDisk(home: string): SmallDisk | null {
  mkdirSync(home, { recursive: true });
  if (spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${SIZE_MB}m,mode=0777`, 'tmpfs', home]).status !== 0) return null;
  chmodSync(home, 0o777);
  const ballast = join(home, 'ballast');
  return {
    home,
    fill: () => {
      const file = openSync(ballast, 'w');
      try {
        for (;;) {
          const { bavail, bsize } = statfsSync(home);
          const room = bavail * bsize - LEFT_BYTES;
          if (room <= 0) break;
          writeSync(file, CHUNK, 0, Math.min(CHUNK.length, room));
        }
      } catch {
        // The daemon took the last of it meanwhile.
      } finally {
        closeSync(file);
      }
    },
    empty: () => rmSync(ballast, { force: true }),
    remove: () => {
      spawnSync('umount', ['-l', home]);
      rmSync(home, { recursive: true, force: true });
    },
  };
}
