import { ok, refuse } from '../../result.js';
import type { DeedOf } from '../evidence.js';
import type { VisitState } from '../visit-state.js';
import { advance, see, targetFor, witness, type Outcome } from './support.js';

export function seeCode(state: VisitState, { data }: DeedOf<'codeSeen'>): Outcome {
  const target = targetFor(state, data.label);
  return target.ok ? ok(see(state, target.value, data.raw)) : target;
}

export function keyCode(state: VisitState, { data, by }: DeedOf<'codeKeyed'>): Outcome {
  const target = targetFor(state, data.label);
  if (!target.ok) return target;
  if (target.value.raw === null) return refuse('leaveAsFound', `${data.label} stays as found.`);
  if (data.raw !== target.value.raw)
    return refuse('notTarget', `${data.label} is to be ${target.value.raw}, not ${data.raw}.`);
  if (!state.toKey.includes(data.label)) return refuse('notDue', `${data.label} is not waiting to be keyed.`);
  return ok({
    ...witness(state, data.label, data.raw),
    toKey: state.toKey.filter((label) => label !== data.label),
    keyedThisRound: [...state.keyedThisRound, data.label],
    keyedBy: new Set([...state.keyedBy, by.userId]),
  });
}

export function stickCode(state: VisitState, { data }: DeedOf<'codeStuck'>): Outcome {
  const target = targetFor(state, data.label);
  if (!target.ok) return target;
  if (!state.toKey.includes(data.label)) return refuse('notDue', `${data.label} is not waiting to be keyed.`);
  return ok({
    ...witness(state, data.label, data.raw),
    toKey: state.toKey.filter((label) => label !== data.label),
    stuck: new Set([...state.stuck, data.label]),
  });
}

export function closeKeyIn(state: VisitState, deed: DeedOf<'keyInClosed'>): Outcome {
  if (state.toKey.length > 0) return refuse('codesLeft', `Still to be keyed: ${state.toKey.join(', ')}.`);
  return ok(advance(state, deed));
}

export function restart(state: VisitState, deed: DeedOf<'restarted'>): Outcome {
  if (state.opened.bench?.unplugCheck === true && deed.data.unplugged !== true) {
    return refuse(
      'notUnplugged',
      'House rules ask to unplug the display and plug it in again: some of its values live only while it is attached.',
    );
  }
  return ok(advance(state, deed));
}
