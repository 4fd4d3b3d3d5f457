import { useEffect } from 'react';
import type { DisplayMap } from '@decurio/core';
import { Glass } from '../glass.js';
import type { Handlebar as HandlebarState } from './use-handlebar.js';
import { isDialogOpen } from '../keys/dialog-open.js';
import { KeyCap } from '../keys/key-cap.js';
import classes from './handlebar.module.css';

export interface HandlebarProps {
  readonly map: DisplayMap;
  readonly bar: HandlebarState;
  /** Whether the digit keys 1, 2, 3 … press the display's keys anywhere on the page. */
  readonly keyboard: 'on' | 'off';
  readonly speed?: string;
}

/** A display with its keys, to be pressed by mouse, finger or keyboard; Shift and click, or Shift and Space, keeps a key down for a chord. */
export function Handlebar({ map, bar, keyboard, speed = '0' }: HandlebarProps) {
  useKeyboard(map, bar, keyboard);
  return (
    <div className={classes['handlebar']}>
      <Glass view={bar.glass} says="The display shows" speed={speed} />
      <div className={classes['keys']} role="group" aria-label="Keys of the display">
        {map.keys.map((key, i) => (
          <button
            key={key.id}
            type="button"
            className={classes['key']}
            data-down={bar.down.has(key.id)}
            aria-pressed={bar.down.has(key.id)}
            onPointerDown={(event) => {
              event.preventDefault();
              // The finger keeps its key, wherever the glass moves it meanwhile.
              event.currentTarget.setPointerCapture(event.pointerId);
              if (event.shiftKey && bar.down.has(key.id)) bar.release(key.id);
              else bar.press(key.id);
            }}
            onPointerUp={(event) => {
              if (!event.shiftKey) releaseAll(bar, key.id);
            }}
            onPointerCancel={() => bar.release(key.id)}
            onKeyDown={(event) => {
              if ((event.key !== ' ' && event.key !== 'Enter') || event.repeat) return;
              event.preventDefault();
              event.stopPropagation();
              if (event.shiftKey && bar.down.has(key.id)) bar.release(key.id);
              else bar.press(key.id);
            }}
            onKeyUp={(event) => {
              if ((event.key === ' ' || event.key === 'Enter') && !event.shiftKey) releaseAll(bar, key.id);
            }}
            onContextMenu={(event) => event.preventDefault()}
          >
            <b>{key.label}</b>
            {keyboard === 'on' && i < 9 && <KeyCap of={String(i + 1)} />}
          </button>
        ))}
      </div>
    </div>
  );
}

/** Keys kept down by Shift go up with the last one released. */
function releaseAll(bar: HandlebarState, key: string): void {
  bar.release(key);
  for (const other of bar.down) if (other !== key) bar.release(other);
}

function useKeyboard(map: DisplayMap, bar: HandlebarState, keyboard: 'on' | 'off'): void {
  const { press, release } = bar;
  useEffect(() => {
    if (keyboard === 'off') return;
    const keyOf = (event: KeyboardEvent): string | undefined => {
      const target = event.target instanceof HTMLElement ? event.target : null;
      if (
        isDialogOpen() ||
        target?.matches('input:not([type="radio"], [type="checkbox"]), textarea, select, [contenteditable="true"]') ||
        target?.closest('[role="dialog"], .cm-editor')
      )
        return undefined;
      return /^[1-9]$/.test(event.key) ? map.keys[Number(event.key) - 1]?.id : undefined;
    };
    const onDown = (event: KeyboardEvent) => {
      if (event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
      const key = keyOf(event);
      if (key !== undefined) press(key);
    };
    const onUp = (event: KeyboardEvent) => {
      const key = keyOf(event);
      if (key !== undefined) release(key);
    };
    const letGo = () => map.keys.forEach((key) => release(key.id));
    document.addEventListener('keydown', onDown);
    document.addEventListener('keyup', onUp);
    window.addEventListener('blur', letGo);
    return () => {
      document.removeEventListener('keydown', onDown);
      document.removeEventListener('keyup', onUp);
      window.removeEventListener('blur', letGo);
    };
  }, [map, press, release, keyboard]);
}
