import { readdirSync, readFileSync } from 'node:fs';
import type { RulePack } from '../setup/inputs/rule-pack.js';
import type { VehicleClass } from '../setup/inputs/vehicle-class.js';
import type { VehicleType } from '../setup/inputs/vehicle-type.js';

const ROOT = new URL('../../', import.meta.url);
const jsonIn = (folder: string): readonly unknown[] =>
  readdirSync(new URL(folder, ROOT))
    .filter((name) => name.endsWith('.json'))
    .map((name) => JSON.parse(readFileSync(new URL(`${folder}${name}`, ROOT), 'utf8')) as unknown);

/** Every type that ships with the demo scenario. */
export const demoTypes = (): readonly VehicleType[] => jsonIn('demo/types/') as readonly VehicleType[];

/** Every class that ships: those of the demo scenario, and the starters. */
export const shippedClasses = (): readonly VehicleClass[] =>
  [...jsonIn('starters/'), ...jsonIn('demo/rules/')].flatMap((pack) =>
    'classes' in (pack as object) ? (pack as RulePack).classes : [],
  );
