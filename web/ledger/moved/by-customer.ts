import type { UnitMoved } from '@decurio/contract';

/** Units of one customer that do not comply, with each reason once. */
export interface CustomerMoved {
  readonly customer: string;
  readonly units: readonly UnitMoved[];
  /** Of which nothing is decided yet. */
  readonly open: readonly UnitMoved[];
  /** What was decided of the others, each decision once. */
  readonly settled: readonly {
    readonly what: 'stays' | 'recalled';
    readonly by: string;
    readonly words: string;
    readonly units: readonly UnitMoved[];
  }[];
  readonly reasons: readonly {
    readonly says: string;
    readonly isGrave: boolean;
    readonly serials: readonly string[];
  }[];
}

/** The same by customer, those with the most units that are out of class first. */
export function byCustomer(units: readonly UnitMoved[]): readonly CustomerMoved[] {
  const groups = new Map<string, UnitMoved[]>();
  for (const unit of units) {
    const own = groups.get(unit.customer) ?? [];
    own.push(unit);
    groups.set(unit.customer, own);
  }
  return [...groups]
    .map(([customer, own]) => ({
      customer,
      units: own,
      open: own.filter(({ decided }) => decided === null),
      settled: settledOf(own),
      reasons: reasonsOf(own),
    }))
    .sort((a, b) => grave(b) - grave(a) || a.customer.localeCompare(b.customer));
}

const grave = ({ units }: CustomerMoved): number =>
  units.filter(({ reasons }) => reasons.some(({ grade }) => grade === 'outOfClass')).length;

function reasonsOf(units: readonly UnitMoved[]): CustomerMoved['reasons'] {
  const found = new Map<string, { isGrave: boolean; serials: string[] }>();
  for (const { serial, reasons } of units)
    for (const { says, grade } of reasons) {
      const own = found.get(says) ?? { isGrave: grade === 'outOfClass', serials: [] };
      own.serials.push(serial);
      found.set(says, own);
    }
  return [...found]
    .map(([says, { isGrave, serials }]) => ({ says, isGrave, serials: serials.toSorted() }))
    .sort((a, b) => Number(b.isGrave) - Number(a.isGrave) || b.serials.length - a.serials.length);
}

function settledOf(units: readonly UnitMoved[]): CustomerMoved['settled'] {
  const found = new Map<string, { decided: NonNullable<UnitMoved['decided']>; units: UnitMoved[] }>();
  for (const unit of units) {
    const { decided } = unit;
    if (decided === null) continue;
    const key = JSON.stringify([decided.what, decided.by, decided.words]);
    const own = found.get(key) ?? { decided, units: [] };
    own.units.push(unit);
    found.set(key, own);
  }
  return [...found.values()].map(({ decided, units: own }) => ({
    ...decided,
    units: own.toSorted((a, b) => (a.serial < b.serial ? -1 : 1)),
  }));
}
