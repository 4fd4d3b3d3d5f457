import { spawn, type ChildProcess } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../lib/paths.mjs';

export interface Demo {
  readonly child: ChildProcess;
  readonly address: string;
  readonly ended: Promise<number | null>;
}

export interface DemoStart {
  /** Its state folder. */
  readonly state: string;
  /** Stands before the command, as a change of user does. */
  readonly as?: readonly string[];
  readonly env?: NodeJS.ProcessEnv;
  /** Loads the deliveries of two months before today too, as a person's start does. */
  readonly withHistory?: boolean;
  readonly onSpawn?: (child: ChildProcess) => void;
}

/** Starts the demo as a person does and waits for its address; with what it said where it ended instead. */
export function startDemo({ state, as = [], env = {}, withHistory = false, onSpawn }: DemoStart): Promise<Demo> {
  const options = withHistory ? [] : ['--without-history'];
  const [command = process.execPath, ...args] = [...as, process.execPath, join(ROOT, 'scripts/demo.mjs'), ...options];
  const child = spawn(command, args, {
    cwd: ROOT,
    env: { ...process.env, DECURIO_STATE: state, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  onSpawn?.(child);
  const ended = new Promise<number | null>((resolve) => child.once('close', resolve));
  return new Promise((resolve, reject) => {
    let said = '';
    const listen = (chunk: Buffer) => {
      said += chunk.toString();
      const address = /is ready: (\S+)/.exec(said)?.[1];
      if (address) resolve({ child, address, ended });
    };
    child.stdout.on('data', listen);
    child.stderr.on('data', listen);
    void ended.then((code) => reject(new Error(`the demo ended with ${code}: ${said}`)));
  });
}

/** Server and database processes that belong to a state folder. */
export function processesOf(state: string): number[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
    .filter((pid) => {
      try {
        const command = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
        if (command.includes(state)) return true;
        return command.includes('server/dist/main.js') && readFileSync(`/proc/${pid}/environ`, 'utf8').includes(state);
      } catch {
        return false;
      }
    });
}
