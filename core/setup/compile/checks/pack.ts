import { CELL_VOLTS } from '../../../electrical/cell.js';
import { checkPack } from '../../../electrical/check-pack.js';
import { doubtAboutPack } from '../../../electrical/pack-label.js';
import { finding } from '../draft.js';
import type { Finding } from '../../setup.js';
import type { Work } from '../wish.js';

/** A pack that gives so many times the motor's rating is worth a question. */
const FAR_ABOVE = 2.5;

/** What is odd about the pack: its label against its cells, the meter against the type, the display against its volts. */
export function packFindings({ type, unit }: Work): readonly Finding[] {
  const { pack, displayStandsV } = type;
  const findings: Finding[] = [];
  const doubt = doubtAboutPack(pack);
  if (doubt) findings.push(finding('decide', 'packLabel', null, doubt));
  const full = CELL_VOLTS[pack.chemistry].fullV * pack.cellsInSeries;
  const floor = CELL_VOLTS[pack.chemistry].floorV * pack.cellsInSeries;
  if (displayStandsV && full > displayStandsV.to + 1e-9)
    findings.push(
      finding(
        'stop',
        'displayVolts',
        null,
        `The display stands ${displayStandsV.to} V, and this pack has ${full.toFixed(1)} V when full. Do not connect it.`,
      ),
    );
  if (displayStandsV && floor < displayStandsV.from - 1e-9)
    findings.push(
      finding(
        'note',
        'displayDark',
        null,
        `The display works from ${displayStandsV.from} V; it may go dark before this pack's cells are empty at ${floor.toFixed(1)} V.`,
      ),
    );
  const draws = pack.labelV * type.typeLimitA;
  if (draws > FAR_ABOVE * type.ratedPowerW)
    findings.push(
      finding(
        'note',
        'drawsFarAbove',
        null,
        `The motor's label says ${type.ratedPowerW} W; ${pack.labelV} V and ${type.typeLimitA} A draw ${Math.round(draws)} W from the pack, ${Math.round(full * type.typeLimitA)} W when it is full. Ask the authority which of the three it means.`,
      ),
    );
  if (unit.packV !== null) {
    const check = checkPack(pack, unit.packV);
    if (check.ok && check.value.verdict !== 'fits')
      findings.push(
        finding(
          check.value.holds ? 'stop' : 'note',
          'packVolts',
          null,
          `Pack reads ${unit.packV.toFixed(1)} V. ${check.value.says}`,
        ),
      );
  }
  return findings;
}
