import { IconAlertTriangle, IconCheck, IconHandStop, IconInfoCircle } from '@tabler/icons-react';
import type { ReactNode } from 'react';
import type { Finding } from '@decurio/core';
import classes from './finding-list.module.css';

const ICONS = { stop: IconHandStop, decide: IconAlertTriangle, note: IconInfoCircle, decided: IconCheck } as const;
const WORDS = { stop: 'Stop', decide: 'A lead decides', note: 'Note', decided: 'Decided' } as const;

export interface FindingListProps {
  readonly findings: readonly Finding[];
  /** What can be done about one, under it. */
  readonly actFor?: (finding: Finding) => ReactNode;
}

/** What follows from a setup: stops first, then what a lead decides, then notes, each with its word. */
export function FindingList({ findings, actFor }: FindingListProps) {
  if (findings.length === 0) return null;
  return (
    <ul className={classes['list']} aria-label="Findings">
      {findings.map((finding) => {
        const kind = finding.decided ? 'decided' : finding.level;
        const Icon = ICONS[kind];
        return (
          <li key={`${finding.id} ${finding.says}`} data-kind={kind}>
            <span className={classes['level']}>
              <Icon size={18} stroke={1.9} aria-hidden="true" /> {WORDS[kind]}
            </span>
            <div>
              <p>{finding.says}</p>
              {finding.decided && (
                <p className="soft">
                  {finding.decided.by}, {finding.decided.on}: {finding.decided.words}
                </p>
              )}
              {actFor?.(finding)}
            </div>
          </li>
        );
      })}
    </ul>
  );
}
