import type { DisplayMap, RestartAct } from '../display/map/display-map.js';

/** Long enough for a controller to notice. */
const UNPLUGGED_MS = 5_000;

/**
 * The power cycle of this display as it is worked: out of the menu first where power cannot be cut inside it, the map's
 * own acts (none where nothing it has waits for a power cycle), and the display off its plug where values live in it alone and house rules ask to try that.
 */
export function restartActs(map: DisplayMap, unplugCheck: boolean): readonly RestartAct[] {
  const attached = map.codes.filter((code) => code.keptIn === 'displayWhileAttached').map(({ label }) => label);
  const has = (what: RestartAct['does']) => map.restart.some(({ does }) => does === what);
  const menuFirst = map.restart.length > 0 && map.menu !== null && !map.power.offInMenu && !has('leavesMenu');
  return [
    ...(menuFirst ? [{ act: 'Leave the menu first: power cannot be cut inside it.', waitMs: 0 }] : []),
    ...map.restart,
    ...(unplugCheck && !has('unplugsDisplay')
      ? [
          {
            act: `Unplug the display, then plug it in again and switch on: ${attached.join(', ')} live in it only while it is attached.`,
            waitMs: UNPLUGGED_MS,
          },
        ]
      : []),
  ];
}

/** What should be seen once it is on again. */
export const seenAfterRestart = ({ power, menu }: DisplayMap): string =>
  `${power.shows === undefined ? 'The glass lights' : `The glass shows ${power.shows} for a moment`}${menu === null ? '.' : ', then speed.'} No new fault, and the motor does not run.`;
