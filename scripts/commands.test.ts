import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { ROOT } from './lib/paths.mjs';

const { scripts } = JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8')) as { scripts: Record<string, string> };
const commands = Object.entries(scripts).flatMap(([name, call]) => {
  const [, file] = /^node (scripts\/\S+)$/.exec(call) ?? [];
  return file === undefined ? [] : [{ name, file }];
});
const call = (file: string, ...words: string[]) =>
  spawnSync(process.execPath, [join(ROOT, file), ...words], {
    encoding: 'utf8',
    env: { PATH: process.env['PATH'] ?? '' },
  });

describe('every command', () => {
  it('is one of ours, and there are as many as there were thought to be', () => {
    expect(commands.map(({ name }) => name)).toEqual(expect.arrayContaining(['demo', 'test', 'account', 'backup']));
  });

  it.each(commands)('$name answers what it does and how it is called, and does nothing', ({ name, file }) => {
    for (const ask of ['--help', '-h']) {
      const { status, stdout } = call(file, ask);
      expect(status).toBe(0);
      expect(stdout).toMatch(new RegExp(`^npm run ${name}\\b`));
      expect(stdout.split('\n').length).toBeGreaterThan(2);
    }
  });

  it.each(commands)('$name refuses an option that it does not know, and does nothing', ({ file }) => {
    const { status, stdout, stderr } = call(file, '--of-no-use');
    expect(status).toBe(1);
    expect(stdout).toBe('');
    expect(stderr).toMatch(/'--of-no-use'.*--help says what there is. Nothing was done\./);
  });

  it.each(commands)('$name refuses more words than it takes', ({ name, file }) => {
    if (name === 'verify' || name === 'verify-ledger') return;
    const { status, stderr } = call(file, 'a', 'technician', 'b', 'c');
    expect(status).toBe(1);
    expect(stderr).toMatch(new RegExp(`^npm run ${name}\\b.*\\n.*Nothing was done\\.`));
  });

  it('npm run account says what it lacks', () => {
    expect(call('scripts/account.mjs').stderr).toContain('npm run account -- NAME technician|lead|owner');
    expect(call('scripts/account.mjs', 'a', 'captain', 'A').stderr).toContain('technician, lead or owner');
  });
});
