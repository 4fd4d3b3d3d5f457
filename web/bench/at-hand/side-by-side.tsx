import type { ReactNode } from 'react';
import { IconX } from '@tabler/icons-react';
import { useDispatch } from 'react-redux';
import { Link, useNavigate } from 'react-router';
import { stepTitle } from '@decurio/core';
import type { AppDispatch } from '../../state/store.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import { isWaiting, MOST_AT_HAND, nextInTurn, atHand } from '../../state/at-hand.js';
import { useNow, useAtHand } from '../../state/use-at-hand.js';
import { KeyCap } from '../../ui/keys/key-cap.js';
import classes from './side-by-side.module.css';

/** The units one person works side by side: where each stands, what it waits for, and the key to the next. */
export function SideBySide({ current, children }: { readonly current: string; readonly children: ReactNode }) {
  const units = useAtHand();
  const now = useNow(units);
  const dispatch = useDispatch<AppDispatch>();
  const navigate = useNavigate();
  const next = nextInTurn(units, current, now);
  const go = () => next && void navigate(`/bench/${next.unitId}`);
  useHotkeys({ G: next ? go : undefined });
  const others = units.filter(({ unitId }) => unitId !== current).slice(1 - MOST_AT_HAND);
  if (others.length === 0) return <div className={classes['acts']}>{children}</div>;
  const here = units.find(({ unitId }) => unitId === current);
  const waitsHere = here !== undefined && isWaiting(here, now);
  return (
    <nav className={classes['side']} aria-label="Your other stands">
      <ol>
        {others.map((unit) => {
          const left = isWaiting(unit, now) ? Math.ceil(((unit.restart?.until ?? 0) - now) / 1000) : 0;
          const isBack = unit.restart?.until !== null && unit.restart !== null && left === 0;
          return (
            <li key={unit.unitId} data-back={isBack}>
              <Link to={`/bench/${unit.unitId}`}>
                <b>{unit.serial}</b>
                <small>{left > 0 ? `waits ${left} s` : isBack ? 'wait is over' : stepTitle(unit.step)}</small>
              </Link>
              <button
                type="button"
                aria-label={`${unit.serial} is not on my stands`}
                onClick={() => dispatch(atHand.actions.left(unit.unitId))}
              >
                <IconX size={14} aria-hidden="true" />
              </button>
            </li>
          );
        })}
      </ol>
      <div className={classes['acts']}>
        {next && (
          <button type="button" className={classes['next']} data-main={waitsHere} onClick={go}>
            Next <KeyCap of="G" />
          </button>
        )}
        {children}
      </div>
    </nav>
  );
}
