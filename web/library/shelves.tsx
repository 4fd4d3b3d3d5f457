import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { LibraryKind } from '@decurio/contract';
import classes from './library-page.module.css';

export const SHELVES: readonly { readonly kind: LibraryKind; readonly title: string; readonly add: string }[] = [
  { kind: 'displayMap', title: 'Displays', add: 'New display' },
  { kind: 'vehicleType', title: 'Types', add: 'New type' },
  { kind: 'rulePack', title: 'Rule packs', add: 'New or starter pack' },
  { kind: 'houseRules', title: 'House rules', add: 'New house rules' },
  { kind: 'checkList', title: 'Checks', add: 'New list of checks' },
  { kind: 'notice', title: 'Notices', add: 'New notice' },
];

/** Rooms of the library that hold no documents. */
const ROOMS = [
  ['learnt', 'Learnt'],
  ['workbench', 'Workbench'],
] as const;

export interface ShelvesProps {
  readonly current: LibraryKind | (typeof ROOMS)[number][0];
  readonly onChoose?: (kind: LibraryKind) => void;
  /** What stands on the shelf that is open. */
  readonly children?: ReactNode;
}

/** The library's shelves and rooms, at the left of each of its pages. */
export const Shelves = ({ current, onChoose, children }: ShelvesProps) => (
  <nav className={classes['shelves']} aria-label="Library">
    {SHELVES.map(({ kind, title }) => (
      <div key={kind}>
        <Link
          to={`/library/${kind}`}
          className={classes['shelf']}
          aria-current={kind === current}
          onClick={() => onChoose?.(kind)}
        >
          {title}
        </Link>
        {kind === current && children}
      </div>
    ))}
    {ROOMS.map(([id, title]) => (
      <Link key={id} to={`/library/${id}`} className={classes['shelf']} aria-current={id === current}>
        {title}
      </Link>
    ))}
  </nav>
);
