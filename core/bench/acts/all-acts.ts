import type { EvidenceKind } from '../evidence.js';
import { reviseSetup } from '../revise-setup.js';
import { refusal } from '../refusals.js';
import type { ActOf } from './act.js';
import { asFoundClosed, asFoundRead, pinRefused, restoredAsFound, strayFound } from './as-found.js';
import {
  calibrated,
  countStands,
  driveEndRead,
  outOfFamily,
  speedJudged,
  speedRead,
  wheelFitted,
  wheelMeasured,
} from './calibrate.js';
import { checkedIn, packMeasured, photographed } from './check-in.js';
import { checkMade, numberClash } from './checks.js';
import { held, released } from './hold.js';
import { codeKeyed, codeSeen, codeStuck, keyInClosed, restarted } from './key-in.js';
import { madeSafe, takenOver } from './make-safe.js';
import { noticed } from './notice.js';
import { displayFound } from './open-visit.js';
import { codeRead, readBackClosed } from './read-back.js';
import { fullRead, proofAgain, proofLeft, proofSeen, proved, waitBegun, waitEnded, wentBack } from './prove.js';
import { partReplaced } from './replace-part.js';
import { countersigned, signedOff, stepByHand } from './sign-off.js';

/** What each kind of entry means. */
export const ACTS: { readonly [K in EvidenceKind]: ActOf<K> } = {
  opened: { closed: () => refusal('openedTwice'), then: (state) => state },
  // Which entry it takes back is the fold's to know.
  undone: { then: (state) => state },
  setupRevised: { then: reviseSetup },
  withdrawn: { then: (state, { data }) => ({ ...state, step: null, held: null, withdrawn: data.words }) },
  displayFound,
  checkedIn,
  packMeasured,
  checkMade,
  numberClash,
  noticed,
  photographed,
  madeSafe,
  asFoundRead,
  strayFound,
  pinRefused,
  asFoundClosed,
  restoredAsFound,
  codeSeen,
  codeKeyed,
  codeStuck,
  keyInClosed,
  restarted,
  codeRead,
  readBackClosed,
  held,
  released,
  takenOver,
  partReplaced,
  wheelMeasured,
  speedRead,
  speedJudged,
  countStands,
  driveEndRead,
  wheelFitted,
  calibrated,
  outOfFamily,
  stepByHand,
  proofSeen,
  proofAgain,
  proofLeft,
  fullRead,
  waitBegun,
  waitEnded,
  proved,
  wentBack,
  countersigned,
  signedOff,
};
