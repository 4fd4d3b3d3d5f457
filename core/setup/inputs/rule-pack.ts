import { hashOf } from '../../ledger/canonical-json.js';
import type { VehicleClass } from './vehicle-class.js';

/** A class as a pack keeps it. */
export interface PackedClass extends VehicleClass {
  /** The class of the parent pack that it follows; null for one of its own. */
  readonly follows: string | null;
}

/** A place's classes. Limits are starting points that the shop checks with its own authority. */
export interface RulePack {
  readonly format: 'decurio-rule-pack/3';
  readonly id: string;
  readonly name: string;
  readonly place: string;
  /**
   * A pack whose classes this one follows, at one version: a state's beside its country's. Every class says all of its
   * values all the same, so that a pack can be read alone; what differs from the parent is its own.
   */
  readonly parent: { readonly id: string; readonly version: number } | null;
  readonly classes: readonly PackedClass[];
}

type Values = Readonly<Record<string, unknown>>;

/** Never followed: what names a class here, and who checked it. */
const OWN = new Set(['id', 'follows', 'checked']);

const differ = (a: unknown, b: unknown): boolean => hashOf(a ?? null) !== hashOf(b ?? null);

/** The fields in which a class is not as the one that it follows, by name; all of them its own. */
export function ownFields(each: PackedClass, parent: RulePack | null): readonly string[] {
  const followed = parent?.classes.find(({ id }) => id === each.follows);
  if (!followed) return [];
  const [mine, theirs] = [each as unknown as Values, followed as unknown as Values];
  return Object.keys(mine).filter((field) => !OWN.has(field) && differ(mine[field], theirs[field]));
}

/** One value that a newer version of the parent would change. */
export interface FollowedChange {
  readonly classId: string;
  readonly field: string;
  readonly was: unknown;
  readonly is: unknown;
}

/**
 * A pack brought to a newer version of its parent: what was as the parent's becomes as the parent's is now, what was its
 * own stays. A class of which a value changed is not checked any more. Classes that the parent has dropped stay as they
 * are, and follow nothing.
 * @param was the parent at the version that the pack followed
 * @param is the parent at the version that it is to follow
 */
export function followParent(
  pack: RulePack,
  was: RulePack,
  is: RulePack,
  version: number,
): { readonly pack: RulePack; readonly changes: readonly FollowedChange[] } {
  const changes: FollowedChange[] = [];
  const classes = pack.classes.map((each): PackedClass => {
    if (each.follows === null) return each;
    const [before, now] = [was, is].map((parent) => parent.classes.find(({ id }) => id === each.follows));
    if (!now) return { ...each, follows: null };
    const own = new Set(ownFields(each, was));
    const mine = each as unknown as Values;
    const moved = Object.entries(now as unknown as Values).filter(
      ([field, value]) => !OWN.has(field) && !own.has(field) && before !== undefined && differ(mine[field], value),
    );
    changes.push(...moved.map(([field, value]) => ({ classId: each.id, field, was: mine[field], is: value })));
    return moved.length === 0 ? each : { ...each, ...Object.fromEntries(moved), checked: null };
  });
  return { pack: { ...pack, parent: pack.parent && { ...pack.parent, version }, classes }, changes };
}
