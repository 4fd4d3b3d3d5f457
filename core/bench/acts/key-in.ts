import { refusal } from '../refusals.js';
import type { ActOf } from './act.js';
import { advance, see, targetFor, unknownCode, withOne, witness } from './support.js';

export const codeSeen: ActOf<'codeSeen'> = {
  refuses: (state, { data }) => unknownCode(state, data.label),
  then: (state, { data: { label, raw } }) => {
    const target = targetFor(state, label);
    return target ? see(state, target, raw) : state;
  },
};

export const codeKeyed: ActOf<'codeKeyed'> = {
  refuses: (state, { data: { label, raw } }) => {
    const target = targetFor(state, label);
    if (!target) return refusal('unknownCode', label);
    if (target.raw === null) return refusal('leaveAsFound', label);
    if (raw !== target.raw) return refusal('notTarget', label, target.raw, raw);
    return state.toKey.includes(label) ? null : refusal('notToKey', label);
  },
  then: (state, { data: { label, raw }, by }) => ({
    ...witness(state, label, raw),
    toKey: state.toKey.filter((each) => each !== label),
    keyedThisRound: [...state.keyedThisRound, label],
    keyedBy: withOne(state.keyedBy, by.userId),
  }),
};

export const codeStuck: ActOf<'codeStuck'> = {
  refuses: (state, { data: { label } }) =>
    unknownCode(state, label) ?? (state.toKey.includes(label) ? null : refusal('notToKey', label)),
  then: (state, { data: { label, raw } }) => ({
    ...witness(state, label, raw),
    toKey: state.toKey.filter((each) => each !== label),
    stuck: withOne(state.stuck, label),
  }),
};

export const keyInClosed: ActOf<'keyInClosed'> = {
  refuses: ({ toKey }) => (toKey.length > 0 ? refusal('leftToKey', toKey.join(', ')) : null),
  then: (state, deed) => advance(state, 'keyIn', deed),
};

export const restarted: ActOf<'restarted'> = {
  refuses: ({ opened }, { data }) =>
    opened.bench?.unplugCheck === true && data.unplugged !== true ? refusal('notUnplugged') : null,
  then: (state, deed) => advance(state, 'restart', deed),
};
