import { findCode, formatRaw, HOLD_REASONS, meaningOf, type DisplayMap, type Evidence, type EvidenceKind } from '@decurio/core';

const TITLES: Readonly<Record<EvidenceKind, string>> = {
  opened: 'Visit opened',
  displayFound: 'Display told',
  setupRevised: 'Worked out anew',
  withdrawn: 'Withdrawn',
  checkedIn: 'Checked in',
  codeSeen: 'Seen on the glass',
  codeKeyed: 'Keyed',
  codeStuck: 'Does not change',
  keyInClosed: 'Key-in closed',
  restarted: 'Restarted',
  codeRead: 'Read back',
  readBackClosed: 'Read-back closed',
  held: 'Held',
  released: 'Released',
  undone: 'Taken back',
  signedOff: 'Signed off',
};

export const evidenceTitle = (kind: EvidenceKind): string => TITLES[kind];

/** What an entry says, in one line. With the display's map, values carry their meaning. */
export function evidenceWords(entry: Evidence, map: DisplayMap | undefined): string {
  const show = (label: string, raw: number): string => {
    const code = map && findCode(map, label);
    return code ? `${formatRaw(code, raw)} (${meaningOf(code, raw)})` : String(raw);
  };
  switch (entry.kind) {
    case 'opened': {
      const { order, versions, setup } = entry.data;
      const set = setup.targets.filter((target) => target.raw !== null).length;
      return `Order ${order.number}, ${order.className}; ${versions.map.name} revision ${versions.map.revision}; ${set} codes have a target`;
    }
    case 'displayFound': {
      const told = entry.data.told.map(({ asks, says }) => `${asks} ${says}`).join('; ');
      return `${entry.data.map.name} revision ${entry.data.map.revision}${told === '' ? '' : `: ${told}`}`;
    }
    case 'checkedIn': {
      const { packV, odometerKm, tyreBar, cablesFree, clampSound, damage, packCondition, accessories } = entry.data;
      return [
        `pack ${packV.toFixed(1)} V, ${packCondition === 'sound' ? 'sound' : 'swollen, wet or damaged'}`,
        odometerKm === null ? 'odometer not read' : `odometer ${odometerKm} km`,
        tyreBar === null ? 'tyre not measured' : `tyre ${tyreBar} bar`,
        cablesFree ? 'cables free' : 'cables not confirmed free',
        clampSound ? 'clamp sound' : 'clamp not confirmed sound',
        ...(accessories === '' ? [] : [`with ${accessories}`]),
        ...(damage === '' ? [] : [`damage: ${damage}`]),
      ].join('; ');
    }
    case 'codeSeen':
    case 'codeStuck':
      return `${entry.data.label} shows ${show(entry.data.label, entry.data.raw)}`;
    case 'codeKeyed':
      return `${entry.data.label} from ${entry.data.fromRaw} to ${show(entry.data.label, entry.data.raw)}`;
    case 'codeRead':
      return entry.data.raw === null ? `${entry.data.label} is not shown` : `${entry.data.label} shows ${show(entry.data.label, entry.data.raw)}`;
    case 'restarted':
      return entry.data.acts.join(' ');
    case 'setupRevised':
      return `${entry.data.why}; ${entry.data.setup.targets.filter((target) => target.raw !== null).length} codes have a target`;
    case 'withdrawn':
      return entry.data.words;
    case 'held':
      return `${HOLD_REASONS[entry.data.reason]}: ${entry.data.words}`;
    case 'released':
    case 'signedOff':
      return entry.data.words;
    case 'undone':
      return 'the entry before it';
    case 'keyInClosed':
      return 'menu left';
    case 'readBackClosed':
      return 'verdicts stand';
  }
}
