import {
  findCode,
  formatRaw,
  HOLD_REASONS,
  meaningOf,
  PARTS,
  PHOTO_SUBJECTS,
  REFERENCES,
  stepTitle,
  WHEEL_MEASURES,
  oddWords,
  type DisplayMap,
  type Evidence,
  type EvidenceData,
  type EvidenceKind,
  type Observation,
} from '@decurio/core';

const TITLES: Readonly<Record<EvidenceKind, string>> = {
  opened: 'Visit opened',
  displayFound: 'Display told',
  setupRevised: 'Worked out anew',
  withdrawn: 'Withdrawn',
  checkedIn: 'Checked in',
  packMeasured: 'Pack measured',
  checkMade: 'Checked',
  numberClash: 'Noted twice',
  noticed: 'Named by a notice',
  photographed: 'Photographed',
  madeSafe: 'Made safe',
  asFoundRead: 'As found',
  strayFound: 'Not on the map',
  pinRefused: 'PIN refused',
  asFoundClosed: 'As found closed',
  restoredAsFound: 'Restored as found',
  codeSeen: 'Seen on the glass',
  codeKeyed: 'Keyed',
  codeStuck: 'Does not change',
  keyInClosed: 'Key-in closed',
  restarted: 'Restarted',
  codeRead: 'Read back',
  readBackClosed: 'Read-back closed',
  held: 'Held',
  released: 'Decided',
  takenOver: 'Taken over',
  partReplaced: 'Part replaced',
  wheelMeasured: 'Wheel measured',
  speedRead: 'Speed read',
  speedJudged: 'Reading judged',
  countStands: 'Looked at again',
  driveEndRead: 'Drive ended',
  wheelFitted: 'Wheel and cap chosen',
  calibrated: 'Calibrated',
  outOfFamily: 'Unlike its family',
  stepByHand: 'By hand',
  proofSeen: 'Proved',
  proofAgain: 'Begun anew',
  proofLeft: 'Test left out',
  fullRead: 'Pack by meter',
  waitBegun: 'Stands aside',
  waitEnded: 'Back at hand',
  proved: 'Proving closed',
  wentBack: 'Went back',
  countersigned: 'Signed beside',
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
    case 'asFoundRead':
      return entry.data.raw === null
        ? `${entry.data.label} is not shown`
        : `${entry.data.label} shows ${show(entry.data.label, entry.data.raw)}`;
    case 'restarted':
      return `${entry.data.acts.join(' ')}${entry.data.together ? ' Said together, as on the unit before.' : ''}`;
    case 'setupRevised':
      return `${entry.data.why}; ${entry.data.setup.targets.filter((target) => target.raw !== null).length} codes have a target`;
    case 'withdrawn':
      return entry.data.words;
    case 'held':
      return `${HOLD_REASONS[entry.data.reason]}: ${entry.data.words}`;
    case 'released':
      return decisionWords(entry.data);
    case 'signedOff':
      return entry.data.words;
    case 'checkMade': {
      const { check, outcome, figure, text, tool, words } = entry.data;
      const said = { good: 'good', notGood: 'not good', notFitted: 'not fitted' }[outcome];
      const together = entry.data.together ? 'looked at together, as on the unit before' : '';
      return [`${check}: ${said}`, figure === null ? '' : String(figure), text, tool && `tool ${tool}`, words, together]
        .filter((part) => part !== '')
        .join(', ');
    }
    case 'noticed':
      return `${entry.data.notice.name}, version ${entry.data.notice.version}: ${entry.data.says}`;
    case 'numberClash':
      return `${entry.data.number} is noted at ${entry.data.serial} too`;
    case 'photographed':
      return `${PHOTO_SUBJECTS[entry.data.subject]}${entry.data.words === '' ? '' : `: ${entry.data.words}`}, SHA-256 ${entry.data.sha256.slice(0, 12)}`;
    case 'madeSafe':
      return `${entry.data.cautions.length} cautions acknowledged${entry.data.together ? ' together, as on the unit before' : ''}`;
    case 'strayFound':
      return `${entry.data.shown} shows ${entry.data.value}`;
    case 'pinRefused':
      return 'the one as delivered does not open the menu';
    case 'asFoundClosed':
      return 'nothing was touched before';
    case 'restoredAsFound':
      return entry.data.labels.join(', ');
    case 'takenOver':
      return `from ${entry.data.from}`;
    case 'partReplaced':
      return `${PARTS[entry.data.part]}: ${entry.data.words}${odometers(entry.data)}`;
    case 'wheelMeasured':
      return `${WHEEL_MEASURES[entry.data.how]}: ${Math.round(entry.data.mm)} mm a turn, ${Math.round(entry.data.fromMm)} to ${Math.round(entry.data.toMm)}`;
    case 'speedRead':
      return `${REFERENCES[entry.data.reference]}: shows ${entry.data.shown} ${entry.data.unit} at ${entry.data.trueKmh.toFixed(1)} km/h true${entry.data.offGround ? ', wheel off the ground' : ''}${entry.data.words === '' ? '' : `: ${entry.data.words}`}`;
    case 'speedJudged':
      return entry.data.isUsed ? 'taken in again' : `left out: ${entry.data.words}`;
    case 'countStands':
      return `the readings were right: ${entry.data.words}`;
    case 'driveEndRead':
      return `at ${entry.data.shown} ${entry.data.unit} as shown`;
    case 'wheelFitted':
      return `${entry.data.count} readings: reads ${shareWords(entry.data.ratio.k)}; with the codes chosen, ${shareWords(entry.data.predicted.k)}`;
    case 'calibrated':
      return calibratedWords(entry.data);
    case 'packMeasured': {
      const { packV, packCondition, words } = entry.data;
      return `${packV.toFixed(1)} V, ${packCondition === 'sound' ? 'sound' : 'swollen, wet, hot or damaged'}${words === '' ? '' : `: ${words}`}`;
    }
    case 'outOfFamily':
      return oddWords(entry.data);
    case 'stepByHand':
      return `${stepTitle(entry.data.step)} ${entry.data.done ? 'done by other means' : 'left out'}${entry.data.words === '' ? '' : `: ${entry.data.words}`}`;
    case 'proofSeen':
      return `${entry.data.test}: ${observationWords(entry.data.seen)}`;
    case 'proofAgain':
      return `${entry.data.test}${entry.data.mended ? `, ${PARTS[entry.data.mended].toLowerCase()} put right` : ''}${entry.data.words === '' ? '' : `: ${entry.data.words}`}`;
    case 'proofLeft':
      return `${entry.data.test}: ${entry.data.words}`;
    case 'fullRead':
      return `${entry.data.packV.toFixed(1)} V at rest, ${entry.data.isCharged ? 'charged to the end since it ran' : 'not charged since it ran'}`;
    case 'waitBegun':
      return `${entry.data.words}${entry.data.dueAt === null ? '' : `, until ${entry.data.dueAt}`}`;
    case 'waitEnded':
      return 'hands are on it again';
    case 'proved':
      return 'every test is shown or left out in writing';
    case 'wentBack':
      return `to ${stepTitle(entry.data.to).toLowerCase()} for ${entry.data.test}${entry.data.words === '' ? '' : `: ${entry.data.words}`}`;
    case 'countersigned':
      return entry.data.words;
    case 'undone':
      return 'the entry before it';
    case 'keyInClosed':
      return 'menu left';
    case 'readBackClosed':
      return 'verdicts stand';
  }
}

/** What was seen, as it was said: by the test's own names where they are at hand. */
function observationWords(seen: Observation): string {
  switch (seen.kind) {
    case 'outcome':
      return seen.outcome;
    case 'speed':
      return `${seen.trueKmh.toFixed(1)} km/h true, by ${seen.reference}`;
    case 'seconds':
      return `${seen.figure} s`;
    case 'turns':
      return `${seen.figure} turns`;
    case 'metres':
      return `${seen.metres} m, beside ${seen.besideMetres} m as delivered`;
    case 'gauge':
      return `${seen.shown} shown at ${seen.meterV.toFixed(1)} V by meter`;
    case 'errors':
      return seen.shown.length === 0 ? 'no error stands' : seen.shown.join(', ');
  }
}

const shareWords = (k: number): string => `${k < 1 ? '−' : '+'}${Math.abs((k - 1) * 100).toFixed(1)} %`;

function calibratedWords({ how, ratio, count, ends, provisional }: EvidenceData['calibrated']): string {
  const by = how === 'runs' ? `${count} readings` : `learnt from ${count} units, not itself measured`;
  const end = ends ? `; drive ends at ${ends.kmh.toFixed(1)} km/h, ${ends.worst.toFixed(1)} at worst` : '';
  return `reads ${shareWords(ratio.k)} by ${by}${end}${provisional === '' ? '' : `; ${provisional}`}`;
}

function decisionWords({ words, decision }: EvidenceData['released']): string {
  switch (decision?.way) {
    case 'accept':
      return `${decision.labels.join(', ')} accepted as shown: ${words}`;
    case 'sendBack':
      return `back to ${stepTitle(decision.to).toLowerCase()}: ${words}`;
    case 'goOn':
    case undefined:
      return words;
  }
}

function odometers({ oldOdometerKm, newOdometerKm, packV }: EvidenceData['partReplaced']): string {
  if (packV !== null) return `; reads ${packV.toFixed(1)} V`;
  return oldOdometerKm === null ? '' : `; odometer ${oldOdometerKm} km before, ${newOdometerKm ?? 0} km now`;
}
