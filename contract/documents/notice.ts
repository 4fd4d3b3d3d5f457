import type { FleetNotice } from '@decurio/core';
import { array, type Schema } from 'yup';
import { id, oneOf, orNull, strictly, text, words, yesNo } from './shapes.js';

const names = strictly({
  types: array(id()).max(60, 'At most sixty types.').required(),
  maps: array(id()).max(60, 'At most sixty displays.').required(),
  serialFrom: orNull(text(40)),
  serialTo: orNull(text(40)),
  packs: array(text(60)).max(500, 'At most five hundred packs.').required(),
  firmware: array(text(40)).max(60, 'At most sixty.').optional(),
}).test(
  'names',
  'Say which units it names: a type, a display, its firmware, serials or packs.',
  (all: object | null) => {
    const { types, maps, packs, firmware, serialFrom, serialTo } = (all ?? {}) as Partial<FleetNotice['names']>;
    return (
      [types, maps, packs, firmware].some((list) => Array.isArray(list) && list.length > 0) ||
      typeof serialFrom === 'string' ||
      typeof serialTo === 'string'
    );
  },
);

/** `decurio-notice/1`. */
export const noticeSchema = strictly({
  format: oneOf('decurio-notice/1'),
  id: id(),
  name: text(60),
  says: text(400),
  cure: words(400),
  source: text(200),
  names,
  isOver: yesNo(),
}) as unknown as Schema<FleetNotice>;
