import type { ErrorBody } from '@decurio/contract';

/** Every way in which a request can fail by the hand of a person, with its status and what the person is told. */
export const PROBLEMS = {
  badRequest: [400, 'The request could not be read. Nothing was changed.'],
  badJson: [400, 'The request is not valid JSON. Nothing was changed.'],
  noBody: [400, 'The request needs a JSON object as its body. Nothing was changed.'],
  tooDeep: [400, 'The request nests deeper than anything here. Nothing was changed.'],
  halfLetter: [400, 'A text in this holds half a letter, which cannot be kept. Type it again.'],
  badFields: [400, 'Some fields need another look. Nothing was changed.'],
  wrongPassword: [401, 'Name and password do not belong together. Check both and try again.'],
  accountLocked: [403, 'This account is locked. Ask the owner of the house.'],
  passwordForOnce: [403, 'This password was given to you for once. Choose your own first.'],
  wrongCurrent: [403, 'That is not the password you have now. Nothing was changed.'],
  ownAccount: [409, 'Nobody changes the role of their own account or locks it. Another owner does it.'],
  wrongCode: [403, 'That is not the code which the server printed as it started last, or somebody is owner already.'],
  noToken: [
    401,
    'This is for programs with a token of this house for just this: Authorization: Bearer ... An owner makes one.',
  ],
  signedOut: [401, 'You are signed out. Sign in again; what you entered is still here.'],
  otherSite: [403, 'This came from the page of another site. Nothing was changed. Open Decurio by its own address.'],
  notAllowed: [403, 'Your role does not include this. Ask a lead.'],
  notFound: [404, 'There is nothing at this address.'],
  unitNotFound: [404, 'No unit with this serial is in an open order. Check the order file, or the label.'],
  recordDamaged: [
    409,
    'The stored entries of this visit are not whole any more, so it cannot be shown. "Verify the seal" says what is amiss; compare with an exported record.',
  ],
  visitNotFound: [404, 'This visit does not exist.'],
  notSealed: [409, 'This unit is not sealed yet: it is signed off first, then handed over.'],
  notHandedOver: [409, 'That cannot be handed over now.'],
  spareGone: [409, 'This spare is not ready any more. Look at the list again.'],
  spareDiffers: [409, 'The record of this spare says something else than this entry. Look at the list again.'],
  nothingToErase: [409, 'Nothing is kept of whoever received this unit, or it is erased already.'],
  nameInside: [
    409,
    'This unit was handed over before names were kept apart: name and signature stand inside the chain, and cannot be taken out of it.',
  ],
  ownName: [409, 'Nobody erases their own name while they work under it. Another owner does it.'],
  lastOwner: [409, 'A house keeps one owner at least. Make somebody else one first.'],
  atUnit: [409, 'They are at a unit. End that first.'],
  sameName: [
    409,
    'Another account has the same shown name, or one that this one had. Give it another name first, then erase.',
  ],
  wrongSecond: [403, 'Name and password of the second person do not belong together. Check both and try again.'],
  labelTooSmall: [422, 'The label does not fit on that size.'],
  printBusy: [503, 'Too much is being printed at once. Try again in a moment.'],
  planBusy: [503, 'Too many plans are being worked out at once. Try again in a moment.'],
  planStopped: [503, 'The plan was stopped or took too long. The one that stood stands.'],
  planMoved: [409, 'The plan moved meanwhile. The newer one is shown; look, and do it again.'],
  printStopped: [503, 'Printing was stopped or took too long. Try again, or print fewer at once.'],
  samePerson: [409, 'You are signed in here already: another person signs beside you, with their own password.'],
  otherVisit: [409, 'This visit belongs to another unit. Scan the unit again.'],
  staleSeq: [409, 'Someone else worked on this unit meanwhile. The newer state is shown; look and enter again.'],
  idReused: [409, 'An entry with this id says something else already. Nothing was changed.'],
  visitOpen: [409, 'This unit has an open visit already.'],
  refused: [409, 'This cannot follow what was done before.'],
  intakeGone: [404, 'This checked file is not there any more. Drop the file again.'],
  orderDiffers: [409, 'The order stands otherwise than this file says. Nothing was taken; drop the file again.'],
  intakeEmpty: [409, 'There is no good row to take.'],
  intakeStale: [409, 'Units of this file were taken elsewhere meanwhile. Nothing was taken; drop the file again.'],
  badDocument: [400, 'The document does not hold what it must. Nothing was changed.'],
  placeTaken: [409, 'There are rules for this place already.'],
  nameTaken: [409, 'Another type is called so already.'],
  noticeUnseen: [409, 'A notice names this unit: it is held until a lead has decided. Look at what it says.'],
  parentMissing: [409, 'The library does not hold the rules that this follows.'],
  listMissing: [409, 'The library does not hold the list of checks that this names.'],
  mapsMissing: [409, 'The library does not hold the displays that this names.'],
  confirmedElsewhere: [
    403,
    'A changed map is a draft until a second person confirms it. Save it with "confirmed": null, then have it confirmed.',
  ],
  ownDraft: [403, 'Whoever wrote a map does not confirm it. Ask a second person.'],
  staleVersion: [409, 'There is a newer version of this map. Look at that one.'],
  confirmedAlready: [409, 'This version is confirmed already.'],
  badTrial: [400, 'The keys of this display do not reach that code with those values. Choose again.'],
  trialMoved: [409, 'Somebody else wrote this trial on meanwhile. What stands now is shown; look and go on.'],
  trialEnded: [409, 'This trial is ended. Begin another one.'],
  trialFull: [409, 'A trial keeps no more than 200 runs. End it with what it shows.'],
  disputeGone: [404, 'There is no such dispute.'],
  settledAlready: [409, 'This dispute is settled already.'],
  notFitted: [409, 'This display is not one that this type carries.'],
  noSuchRun: [404, 'There is no such run any more. Look at the page once more.'],
  sameDocument: [409, 'The newest version says exactly this already.'],
  classNotChecked: [
    409,
    'Nobody here has checked this class with the local authority. A lead does so under Library, Rule packs; then sign off.',
  ],
  checkRanOut: [
    409,
    'The check of this class has run out. A lead checks it again under Library, Rule packs; then sign off.',
  ],
  rulesMoved: [
    409,
    'The class says something else than when this unit was set up. A lead works its order out anew on the page of the order.',
  ],
  orderMoved: [
    409,
    'The order was changed a moment ago, and this unit is being worked out anew. Look again, then sign off.',
  ],
  checkMoved: [409, 'The check of this class is not the one on your screen any more. Look again, then sign off.'],
  authorityOver: [409, 'The authority for private land has ended. A lead amends the order first.'],
  withdrawn: [409, 'This unit was withdrawn from its order.'],
  classGone: [409, 'This rule pack has no such class any more. Look at the newest version.'],
  expiresBefore: [400, 'A check that ends in the past confirms nothing.'],
  checkedElsewhere: [
    403,
    'A changed class is not checked until a lead confirms it here. Save it with "checked": null, then confirm it.',
  ],
  orderExists: [409, 'There is an order with this number already. Take another number, or amend that order.'],
  needsAuthority: [403, "A class for private land wants a lead's own authority: a lead takes this order in by hand."],
  serialTaken: [409, 'A serial is in an open order already. Nothing was changed.'],
  notInOrder: [409, 'One of these units is not in this order, or has left it. Nothing was changed.'],
  unknownHere: [409, 'The library does not hold what this names. Nothing was changed.'],
  beyondOrder: [409, 'This wants more than the order allows. Nothing was changed.'],
  notAsked: [409, 'Nobody is asked this for that type now. Look at the page once more.'],
  nothingChanged: [409, 'This says what the order says already.'],
  cannotAccept: [409, 'This cannot be accepted.'],
  notAPhoto: [400, 'This is not a JPEG photograph, or not a whole one. Take it again.'],
  photosFull: [
    409,
    'This visit keeps as many photographs as a visit may. What was taken stands; the entry goes on without another one.',
  ],
  photosFullToday: [
    409,
    'The house has kept as many photographs today as it may. What was taken stands; try again tomorrow, or ask the owner.',
  ],
  photoMissing: [409, 'The photograph itself has not arrived yet. It is sent again with its entry.'],
  otherFigures: [409, 'The figures do not follow from the readings that are kept. Look again, then choose.'],
  notYet: [409, 'The readings do not allow it yet.'],
  pinLocked: [
    409,
    'This PIN was sealed under another secret than the server has now, and cannot be read. Whoever runs the server sets the earlier PIN_SECRET again.',
  ],
  noPin: [409, 'The house rules of this order set no PIN.'],
  clockAhead: [
    400,
    "This says when it was done, and that time has not come yet: the device's clock is ahead. Set it right, then enter again.",
  ],
  clockBehind: [
    400,
    "This says it was done before the visit began: the device's clock is behind. Set it right, then enter again.",
  ],
  readTooLong: [
    413,
    'This takes too long to read for what it is. Nothing was taken; look whether it is the right file.',
  ],
  readTooMuch: [
    413,
    'This takes too much room to read for what it is. Nothing was taken; look whether it is the right file.',
  ],
  readStopped: [408, 'Reading was stopped. Nothing was taken.'],
  readBusy: [503, 'Many files are being read just now. Wait a few seconds, then send it again.'],
  badArchive: [422, 'This is no archive that could be taken in. Nothing was changed.'],
  tooLarge: [413, 'This is too large. Nothing was changed.'],
  wrongMedia: [415, 'This kind of content is not understood here.'],
  sessionGone: [404, 'That session has ended already.'],
  signInBusy: [503, 'Many are signing in just now. Wait a few seconds, then try again.'],
  tookTooLong: [503, 'This took too long to answer. What was accepted before is safe; look, then try again.'],
  tooSlow: [408, 'The request took too long to arrive. Nothing was changed; try again.'],
  tooManyTries: [429, 'Too many tries. Wait a minute, then try again.'],
  internal: [500, 'Something went wrong on the server. What was accepted before is safe; try again.'],
  databaseAway: [503, 'The database does not answer. What was accepted before is safe; try again shortly.'],
} as const satisfies Record<string, readonly [number, string]>;

export type ProblemCode = keyof typeof PROBLEMS;

/** Thrown in a route to end it with one of the `PROBLEMS`. */
export class HttpProblem extends Error {
  readonly statusCode: number;
  constructor(
    readonly code: ProblemCode | (string & {}),
    options: {
      readonly status?: number;
      readonly message?: string;
      readonly fields?: Readonly<Record<string, string>>;
    } = {},
  ) {
    const [status, message] = PROBLEMS[code as ProblemCode] ?? [409, code];
    super(options.message ?? message);
    this.statusCode = options.status ?? status;
    this.fields = options.fields;
  }
  readonly fields: Readonly<Record<string, string>> | undefined;
}

export const errorBody = (problem: HttpProblem): ErrorBody => ({
  error: { code: problem.code, message: problem.message, ...(problem.fields ? { fields: problem.fields } : {}) },
});
