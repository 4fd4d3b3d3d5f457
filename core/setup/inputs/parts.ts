/** Parts whose change voids what was read, measured or proved with the old one. */
export const PARTS = {
  display: 'Display',
  controller: 'Controller',
  firmware: 'Firmware',
  motor: 'Motor',
  tyre: 'Tyre',
  pack: 'Pack',
  brakes: 'Brakes and levers',
  throttle: 'Throttle',
  pedals: 'Pedal sensor',
  lights: 'Lights and bell',
} as const;
export type Part = keyof typeof PARTS;
