import { part } from './lazy-part.js';

export const AsFound = part(() => import('./as-found/as-found.js').then((m) => ({ default: m.AsFound })));
export const ByHand = part(() => import('./by-hand.js').then((m) => ({ default: m.ByHand })));
export const Calibrate = part(() => import('./calibrate/calibrate.js').then((m) => ({ default: m.Calibrate })));
export const Verdict = part(() => import('./calibrate/verdict.js').then((m) => ({ default: m.Verdict })));
export const WheelDialog = part(() => import('./calibrate/wheel-dialog.js').then((m) => ({ default: m.WheelDialog })));
export const CheckIn = part(() => import('./check-in.js').then((m) => ({ default: m.CheckIn })));
export const Checks = part(() => import('./checks/checks.js').then((m) => ({ default: m.Checks })));
export const CutPower = part(() => import('./cut-power.js').then((m) => ({ default: m.CutPower })));
export const Held = part(() => import('./held.js').then((m) => ({ default: m.Held })));
export const HoldDialog = part(() => import('./correcting-dialogs.js').then((m) => ({ default: m.HoldDialog })));
export const OnAnotherStand = part(() => import('./on-another-stand.js').then((m) => ({ default: m.OnAnotherStand })));
export const PartDialog = part(() => import('./part-dialog.js').then((m) => ({ default: m.PartDialog })));
export const Prove = part(() => import('./prove/prove.js').then((m) => ({ default: m.Prove })));
export const ProofList = part(() => import('./prove/proof-list.js').then((m) => ({ default: m.ProofList })));
export const StandsAside = part(() => import('./prove/stands-aside.js').then((m) => ({ default: m.StandsAside })));
export const RestoreDialog = part(() =>
  import('./as-found/restore-dialog.js').then((m) => ({ default: m.RestoreDialog })),
);
export const HandOver = part(() => import('../hand-over/hand-over.js').then((m) => ({ default: m.HandOver })));
export const SignOff = part(() => import('./sign-off.js').then((m) => ({ default: m.SignOff })));
export const StandInDrawer = part(() =>
  import('./stand-in/stand-in-drawer.js').then((m) => ({ default: m.StandInDrawer })),
);
export const UndoDialog = part(() => import('./correcting-dialogs.js').then((m) => ({ default: m.UndoDialog })));
export const StrayDialog = part(() => import('./as-found/stray-dialog.js').then((m) => ({ default: m.StrayDialog })));
