import type { DisplayMap } from '../map/display-map.js';
import { hold, tap } from '../map/gesture.js';

/** A map to begin with when a display is written from a paper: three keys, a menu as most have it, one entry. A draft. */
export const blankMap = (): DisplayMap => ({
  format: 'decurio-display-map/2',
  id: 'new-display',
  name: 'New display',
  revision: 'A',
  tellBy: '',
  keys: [
    { id: 'SET', label: 'SET' },
    { id: 'k2', label: '+' },
    { id: 'k3', label: '−' },
  ],
  power: { first: 'Switch the pack on.', on: hold(1_500, 'SET'), off: hold(3_000, 'SET'), offInMenu: false },
  menu: {
    opens: [{ gesture: hold(2_000, 'k2', 'k3'), from: 'riding', page: 'main' }],
    pin: null,
    close: hold(2_000, 'SET'),
    pages: [{ id: 'main', title: 'Menu', items: [{ code: '1' }] }],
    turns: [],
    next: tap('SET'),
    previous: null,
    afterLast: 'wrap',
    pick: null,
    edit: { style: 'live', up: tap('k2'), down: tap('k3') },
    values: 'stop',
    repeat: null,
    store: { on: 'change' },
    idle: { browseMs: 8_000, editMs: 8_000, pinMs: 8_000, unstored: 'drop', reopensAt: 'first' },
  },
  restart: [{ act: 'Switch off, wait until the glass is dark, switch on again.', waitMs: 5_000 }],
  dangers: [],
  codes: [
    {
      label: '1',
      function: 'units',
      range: { min: 0, max: 1, step: 1 },
      decimals: 0,
      factory: 0,
      encoding: {
        kind: 'table',
        entries: [
          { raw: 0, value: 'kmh', title: 'km/h' },
          { raw: 1, value: 'mph', title: 'mph' },
        ],
      },
      access: 'open',
      effect: 'acts',
      actsAfter: 'once',
      source: 'makersPaper',
    },
  ],
  confirmed: null,
});
