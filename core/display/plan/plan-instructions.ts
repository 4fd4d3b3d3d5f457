import type { Code, DisplayMap } from '../map/display-map.js';
import { displayAtRest, type RawValues } from '../machine/display-state.js';
import { codeTitle } from '../map/code-title.js';
import type { Unreachable } from './key-plan.js';
import { codeNow } from '../map/range-in-unit.js';
import { formatRaw, onGrid, valueWords } from '../map/raw-value.js';

/** One line of what is done with a unit that is set through an app or a service connection. */
export interface Instruction {
  readonly act: 'connect' | 'profile' | 'choose' | 'write' | 'reconnect' | 'readAgain';
  readonly says: string;
  readonly label: string | null;
  readonly raw: number | null;
}

export interface InstructionPlan {
  readonly instructions: readonly Instruction[];
  readonly unreachable: readonly Unreachable[];
}

/**
 * What to do, line by line, to bring every target about on a unit without a key menu: connect, choose each value (in
 * every pack profile that holds one of its own), write, reconnect, and read again, on the glass or through the channel as its
 * map says. What must be there first comes first. Codes that convert others come first.
 * Empty where everything is at its target, or where the map has a key menu.
 */
export function planInstructions(map: DisplayMap, targets: RawValues, values: RawValues): InstructionPlan {
  const channel = map.instructions;
  const held = displayAtRest(map, values).stored;
  const due = map.codes.filter(({ label }) => targets[label] !== undefined && targets[label] !== held[label]);
  if (!channel) return { instructions: [], unreachable: [] };
  const unreachable = due.flatMap((code) => {
    const why =
      code.access !== 'open'
        ? `${code.label} cannot be written through ${channel.via}.`
        : onGrid(codeNow(code, { ...held, ...targets }), targets[code.label] ?? 0)
          ? null
          : `${code.label} cannot be set to ${formatRaw(code, targets[code.label] ?? 0)}.`;
    return why === null ? [] : [{ label: code.label, why }];
  });
  const doable = due
    .filter(({ label }) => !unreachable.some((u) => u.label === label))
    .sort((a, b) => Number(converts(b)) - Number(converts(a)));
  if (doable.length === 0) return { instructions: [], unreachable };
  const line = (act: Instruction['act'], says: string, label: string | null = null): Instruction => ({
    act,
    says,
    label,
    raw: label === null ? null : (targets[label] ?? null),
  });
  const choose = (code: Code): Instruction =>
    line(
      'choose',
      `${channel.choose} ${code.label}, ${codeTitle(code).toLowerCase()}: ${valueWords(code, targets[code.label] ?? 0)}.`,
      code.label,
    );
  const inEach = doable.filter((code) => isPerProfile(map, code));
  const chosen = [
    ...doable.filter((code) => !inEach.includes(code)).map(choose),
    ...(inEach.length === 0
      ? []
      : channel.profiles.flatMap((profile) => [
          line('profile', `Switch to pack profile ${profile}.`),
          ...inEach.map(choose),
        ])),
  ];
  return {
    instructions: [
      ...(channel.firmware === undefined
        ? []
        : [line('connect', `It needs firmware ${channel.firmware} or later: look at what it has first.`)]),
      ...channel.connect.map((says) => line('connect', says)),
      ...chosen,
      ...channel.write.map((says) => line('write', says)),
      ...channel.reconnect.map((says) => line('reconnect', says)),
      ...(channel.lasts === 'whileAttached'
        ? [line('reconnect', `It holds only while ${channel.via} stays attached: leave it on, and seal it in place.`)]
        : []),
      ...(channel.readOut ?? []).map((says) => line('readAgain', says)),
      ...doable.map((code) => line('readAgain', `Read ${code.label} again.`, code.label)),
    ],
    unreachable,
  };
}

/** Whether each pack profile has a value of its own. Where no code says so of itself, all are taken to: none is left out. */
const isPerProfile = ({ codes, instructions }: DisplayMap, code: Code): boolean =>
  (instructions?.profiles ?? []).length > 0 &&
  (code.keptIn === 'profile' || codes.every(({ keptIn }) => keptIn !== 'profile'));

const converts = (code: DisplayMap['codes'][number]): boolean =>
  code.influences?.some((influence) => influence.kind === 'converts') ?? false;
