import { useMemo } from 'react';
import {
  compileSetup,
  isOpen,
  kmhWords,
  NO_FACTS,
  type DisplayMap,
  type HouseRules,
  type RulePack,
  type VehicleType,
} from '@decurio/core';
import { api } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { FindingList } from '../../ui/finding-list.js';
import { today } from '../../ui/house-zone.js';
import type { Promised } from '../promise/promise.js';
import classes from '../promise/order-form.module.css';

export interface SetupGlanceProps {
  readonly type: VehicleType;
  readonly map: DisplayMap | undefined;
  readonly promised: Promised;
}

/** What the promise comes to on a type, while it is being typed: how many codes, how fast, and what stands against it. */
export function SetupGlance({ type, map, promised }: SetupGlanceProps) {
  const { who } = useSession();
  const pack = api
    .useLibraryQuery('rulePack')
    .data?.map((entry) => entry.document as RulePack)
    .find((each) => each.id === promised.rulePackId);
  const houseRules = api
    .useLibraryQuery('houseRules')
    .data?.map((entry) => entry.document as HouseRules)
    .find((each) => each.id === promised.houseRulesId);
  const vehicleClass = pack?.classes.find((each) => each.id === promised.classId);
  const name = who?.name ?? '';
  const setup = useMemo(() => {
    if (!map || !vehicleClass || !houseRules) return null;
    const { privateLand } = promised.terms;
    const terms = {
      ...promised.terms,
      privateLand: privateLand && { ...privateLand, authorityBy: name },
      decisions: [],
    };
    return compileSetup({ type, map, vehicleClass, houseRules, terms, unit: NO_FACTS, today: today() });
  }, [type, map, vehicleClass, houseRules, promised.terms, name]);
  if (!setup) return null;
  const set = setup.targets.filter((target) => target.raw !== null).length;
  const pressing = setup.findings.filter((finding) => finding.level === 'stop' || isOpen(finding));
  return (
    <div className={classes['says']}>
      {set} of {setup.targets.length} codes get a target; limit {kmhWords(setup.limitKmh)}. {setup.worst?.says}
      <FindingList findings={pressing} />
    </div>
  );
}
