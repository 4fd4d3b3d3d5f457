import type { DisplayMap } from '../display/map/display-map.js';
import { hashOf } from '../ledger/canonical-json.js';
import { compileSetup } from '../setup/compile/compile-setup.js';
import type { SetupInputs } from '../setup/inputs/setup-inputs.js';
import { unitFactsOf } from './calibrate/unit-facts.js';
import type { EvidenceData } from './evidence.js';
import type { VisitState } from './visit-state.js';

/** What the setup of a unit is worked out from, beside its display and what its visit knows of it. */
export interface SetupGround extends Pick<EvidenceData['setupRevised'], 'order' | 'versions'> {
  /** As of a unit of which nothing is known but what was ordered for it alone. */
  readonly inputs: Omit<SetupInputs, 'map'>;
}

/**
 * Works the setup of a visit out anew from what it knows of its unit.
 * @returns what its log is to say, null where the setup and what is repeated of the order stay as they are
 */
export function setupAnew(
  state: VisitState,
  map: DisplayMap,
  { order, versions, inputs }: SetupGround,
  why: string,
  cause?: string,
): EvidenceData['setupRevised'] | null {
  const setup = compileSetup({ ...inputs, map, unit: { ...inputs.unit, ...unitFactsOf(state, map) } });
  const { opened } = state;
  if (hashOf(setup) === hashOf(opened.setup) && hashOf(order) === hashOf(opened.order)) return null;
  return { why, order, versions, pack: inputs.type.pack, setup, ...(cause === undefined ? {} : { cause }) };
}
