import { checkStanding, hashOf, type EntryOf, type VisitState } from '@decurio/core';
import type { EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Orders, type UnitRow } from './entities.js';
import { getDocument } from './library.js';
import { classOf, saysTheSame, termsOf } from './setups.js';
import { today } from './house.js';
import { unseenNotices } from './notices.js';

/**
 * What the log alone cannot know at sign off: that a lead of this house has checked the class, that the check still
 * holds, that the class says what the unit was set up for, and that an authority for private land has not ended.
 */
export async function guardSignOff(
  manager: EntityManager,
  unit: UnitRow,
  state: VisitState,
  data: EntryOf<'signedOff'>['data'],
): Promise<void> {
  const order = await manager.findOneOrFail(Orders, {
    where: { id: unit.orderId },
    lock: { mode: 'pessimistic_write' },
  });
  if (unit.revision < order.revision) throw new HttpProblem('orderMoved');
  if ((await unseenNotices(manager, unit, state)).length > 0) throw new HttpProblem('noticeUnseen');
  const newest = await getDocument(manager, 'rulePack', order.rulePackId);
  const used = await getDocument(
    manager,
    'rulePack',
    state.opened.versions.rulePack.id,
    state.opened.versions.rulePack.version,
  );
  const vehicleClass = classOf(newest, order.classId);
  const day = await today(manager);
  const standing = checkStanding(vehicleClass.checked, day);
  if (standing !== 'checked') throw new HttpProblem(standing === 'expired' ? 'checkRanOut' : 'classNotChecked');
  if (used.id !== newest.id || !saysTheSame(classOf(used, order.classId), vehicleClass))
    throw new HttpProblem('rulesMoved');
  if (data.check === undefined || hashOf(data.check) !== hashOf(vehicleClass.checked))
    throw new HttpProblem('checkMoved');
  const { privateLand } = termsOf(order);
  if (privateLand && privateLand.endsOn < day) throw new HttpProblem('authorityOver');
}
