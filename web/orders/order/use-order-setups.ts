import { useMemo } from 'react';
import {
  compileSetup,
  NO_FACTS,
  type DisplayMap,
  type HouseRules,
  type RulePack,
  type Setup,
  type SetupInputs,
  type VehicleType,
} from '@decurio/core';
import type { OrderPageView } from '@decurio/contract';
import { api } from '../../state/api.js';
import { today } from '../../ui/house-zone.js';

/** Units of an order that carry the same display, with the setup they all get. */
export interface GroupSetup {
  readonly key: string;
  readonly type: VehicleType;
  readonly map: DisplayMap;
  readonly units: number;
  readonly sealed: number;
  readonly expected: number;
  readonly inputs: SetupInputs;
  readonly setup: Setup;
}

export interface OrderSetups {
  readonly groups: readonly GroupSetup[];
  readonly pack: RulePack;
  readonly houseRules: readonly HouseRules[];
}

/** The setup of every type and display of an order, from the newest documents; null until they are here. */
export function useOrderSetups(view: OrderPageView | undefined): OrderSetups | null {
  const types = api.useLibraryQuery('vehicleType').data;
  const maps = api.useLibraryQuery('displayMap').data;
  const packs = api.useLibraryQuery('rulePack').data;
  const rules = api.useLibraryQuery('houseRules').data;
  return useMemo(() => {
    if (!view || !types || !maps || !packs || !rules) return null;
    const pack = packs.map((entry) => entry.document as RulePack).find((each) => each.id === view.rulePackId);
    const houseRules = rules.map((entry) => entry.document as HouseRules);
    const own = houseRules.find((each) => each.id === view.houseRulesId);
    const vehicleClass = pack?.classes.find((each) => each.id === view.classId);
    if (!pack || !own || !vehicleClass) return null;
    const groups = kindsIn(view).flatMap(({ typeId, mapId, units, sealed, expected }): GroupSetup[] => {
      const type = types.find((entry) => entry.id === typeId)?.document as VehicleType | undefined;
      const map = maps.find((entry) => entry.id === mapId)?.document as DisplayMap | undefined;
      if (!type || !map) return [];
      const inputs: SetupInputs = {
        type,
        map,
        vehicleClass,
        houseRules: own,
        terms: view.terms,
        unit: { ...NO_FACTS, ...view.learnt.find((each) => each.typeId === typeId && each.mapId === mapId)?.facts },
        today: today(),
      };
      return [{ key: `${typeId}--${mapId}`, type, map, units, sealed, expected, inputs, setup: compileSetup(inputs) }];
    });
    return { groups, pack, houseRules };
  }, [view, types, maps, packs, rules]);
}

/** Types and displays of an order, those that are still to come included. */
function kindsIn({ groups, expected }: OrderPageView) {
  const kinds = groups.map((group) => ({
    ...group,
    expected: expected
      .filter((e) => e.typeId === group.typeId && e.mapId === group.mapId)
      .reduce((sum, e) => sum + e.count, 0),
  }));
  const coming = expected.filter((e) => !groups.some((group) => group.typeId === e.typeId && group.mapId === e.mapId));
  return [
    ...kinds,
    ...coming.map(({ typeId, mapId, count }) => ({ typeId, mapId, units: 0, sealed: 0, expected: count })),
  ];
}
