import { IconArrowRight, IconX } from '@tabler/icons-react';
import { useDispatch } from 'react-redux';
import { Link, useNavigate } from 'react-router';
import { stepTitle } from '@decurio/core';
import type { AppDispatch } from '../../state/store.js';
import { ActButton } from '../../ui/act-button.js';
import { useHotkeys } from '../../ui/use-hotkeys.js';
import { isWaiting, nextInTurn, stands } from '../../state/stands.js';
import { useNow, useStands } from '../../state/use-stands.js';
import classes from './side-by-side.module.css';

/** The units one person works side by side: where each stands, what it waits for, and the key to the next. */
export function SideBySide({ current }: { readonly current: string }) {
  const units = useStands();
  const now = useNow(units);
  const dispatch = useDispatch<AppDispatch>();
  const navigate = useNavigate();
  const next = nextInTurn(units, current, now);
  const go = () => next && void navigate(`/bench/${next.unitId}`);
  useHotkeys({ G: next ? go : undefined });
  if (!units.some(({ unitId }) => unitId !== current)) return null;
  const here = units.find(({ unitId }) => unitId === current);
  return (
    <nav className={classes['row']} aria-label="On your stands">
      <ol>
        {units.map((unit) => {
          const left = isWaiting(unit, now) ? Math.ceil(((unit.restart?.until ?? 0) - now) / 1000) : 0;
          const isBack = unit.restart?.until !== null && unit.restart !== null && left === 0;
          return (
            <li key={unit.unitId} data-here={unit.unitId === current} data-back={isBack && unit.unitId !== current}>
              <Link to={`/bench/${unit.unitId}`} aria-current={unit.unitId === current ? 'page' : undefined}>
                <b>{unit.serial}</b> {stepTitle(unit.step)}
                {left > 0 && <span className="num"> {left} s</span>}
                {isBack && unit.unitId !== current && <span> wait is over</span>}
              </Link>
              {unit.unitId !== current && (
                <button type="button" aria-label={`${unit.serial} is not on my stands`} onClick={() => dispatch(stands.actions.left(unit.unitId))}>
                  <IconX size={16} aria-hidden="true" />
                </button>
              )}
            </li>
          );
        })}
      </ol>
      {next && (
        <ActButton look={here && isWaiting(here, now) ? 'main' : 'quiet'} hotkey="G" onAct={go}>
          {here && isWaiting(here, now) ? `While it waits: ${next.serial}` : 'Next unit'} <IconArrowRight size={16} aria-hidden="true" />
        </ActButton>
      )}
    </nav>
  );
}
