import { throttlePermission } from '../throttle-permission.js';
import { asFound, choiceStep, step, strength, word, type WishFor } from '../wish.js';

/** Pedals, throttle or both: by class, order and what is fitted. */
export const driveMode: WishFor = (code, work) => {
  const { allowed, why } = throttlePermission(work);
  const said = step(why.from, `${why.says}${allowed ? '' : ': pedal assist only'}`);
  if (allowed) return word(code, work.type.pedalMagnets === null ? ['throttle', 'both'] : ['both', 'throttle'], said);
  const wish = word(code, 'pedal', said);
  if (wish.raw !== null) return wish;
  if (!work.type.throttleFitted) return asFound(`${why.says}: stays as found.`);
  return asFound(`${why.says}: no pedal-only mode on this code.`, {
    level: 'stop',
    topic: 'noPedalMode',
    says: `${code.label} has no pedal-only mode, a throttle is fitted, and ${why.says.charAt(0).toLowerCase()}${why.says.slice(1)}.`,
  });
};

/** What it takes before a throttle pushes. */
export const standstillStart: WishFor = (code, work) => {
  const { standstillStart: chosen } = work.choices;
  const { throttleFrom } = work.vehicleClass;
  if (throttleFrom === 'pedalling' && chosen !== 'pedalFirst')
    return word(code, 'pedalFirst', step('class', 'The class lets the throttle drive only while the pedals turn'));
  if (chosen === 'live' && throttleFrom === 'rolling')
    return word(
      code,
      ['rolling', 'pedalFirst'],
      step('class', 'The class allows no drive from standstill: only once rolling'),
    );
  return word(code, chosen, choiceStep(work, 'standstillStart'));
};

export const throttleScope: WishFor = (code, work) =>
  word(code, work.choices.throttleScope, choiceStep(work, 'throttleScope'));

export const throttleStrength: WishFor = (code, work) =>
  throttlePermission(work).allowed
    ? strength(code, work.choices.startRamp, choiceStep(work, 'startRamp'))
    : asFound(`${throttlePermission(work).why.says}: stays as found.`);
