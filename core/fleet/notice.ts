/** A maker's or the house's own word on vehicles that are not to leave as they are: it holds the units that it names. */
export interface FleetNotice {
  readonly format: 'decurio-notice/1';
  readonly id: string;
  readonly name: string;
  /** What is wrong, and what it does. */
  readonly says: string;
  /** What is done about it. */
  readonly cure: string;
  readonly source: string;
  /** Which units it names: all that is given has to be true of one; an empty list, or null, asks nothing. */
  readonly names: {
    readonly types: readonly string[];
    /** Displays, by the id of their map. */
    readonly maps: readonly string[];
    readonly serialFrom: string | null;
    readonly serialTo: string | null;
    /** Numbers of packs, as they were scanned. */
    readonly packs: readonly string[];
    /** Firmware of displays, as it was noted; left out for any. */
    readonly firmware?: readonly string[];
  };
  /** It holds nothing any more. */
  readonly isOver: boolean;
}

export interface NoticedUnit {
  readonly serial: string;
  readonly typeId: string;
  readonly mapId: string;
  /** As scanned; null where nobody has. */
  readonly packNumber: string | null;
  /** As noted; null where nobody has. */
  readonly firmware: string | null;
}

/** Digits count as numbers: S26-0099 comes before S26-0100, and before S26-1000. */
const inOrder = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/**
 * Whether a notice names a unit. One that gives nothing at all names none.
 * @example
 * const names = { types: [], maps: [], serialFrom: 'S26-0099', serialTo: 'S26-0120', packs: [] };
 * const of = (serial: string) => isNamed({ names, isOver: false }, { serial, typeId: 'a', mapId: 'b', packNumber: null, firmware: null });
 * [of('S26-0100'), of('S26-0121'), of('s26-0099')]; // [true, false, true]
 */
export function isNamed({ names, isOver }: Pick<FleetNotice, 'names' | 'isOver'>, unit: NoticedUnit): boolean {
  const { types, maps, serialFrom, serialTo, packs } = names;
  const firmware = names.firmware ?? [];
  const asksNothing =
    types.length + maps.length + packs.length + firmware.length === 0 && serialFrom === null && serialTo === null;
  if (isOver || asksNothing) return false;
  return (
    (types.length === 0 || types.includes(unit.typeId)) &&
    (maps.length === 0 || maps.includes(unit.mapId)) &&
    (serialFrom === null || inOrder.compare(unit.serial, serialFrom) >= 0) &&
    (serialTo === null || inOrder.compare(unit.serial, serialTo) <= 0) &&
    isAmong(packs, unit.packNumber) &&
    isAmong(firmware, unit.firmware)
  );
}

/** Whether something noted is one of a list; an empty list asks nothing. */
const isAmong = (list: readonly string[], noted: string | null): boolean =>
  list.length === 0 || (noted !== null && list.some((each) => inOrder.compare(each.trim(), noted.trim()) === 0));
