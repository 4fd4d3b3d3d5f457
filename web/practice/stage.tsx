import type { ReactNode } from 'react';
import { gestureWords, isKeyed, type DisplayMap, type EditRules } from '@decurio/core';
import { Fuse } from '../ui/fuse.js';
import { Handlebar } from '../ui/handlebar/handlebar.js';
import type { Handlebar as HandlebarState } from '../ui/handlebar/use-handlebar.js';
import { Notice } from '../ui/notice.js';
import classes from './practice-page.module.css';

/** The display at the left with how it is handled under it, the task at the right. */
export function Stage({
  map,
  bar,
  children,
}: {
  readonly map: DisplayMap;
  readonly bar: HandlebarState;
  readonly children: ReactNode;
}) {
  if (!isKeyed(map)) return null;
  const { menu } = map;
  const isOpen = bar.glass.kind === 'menu' || bar.glass.kind === 'entry' || bar.glass.kind === 'pin';
  return (
    <div className={classes['stage']}>
      <section className={classes['display']} aria-label="Display">
        <Handlebar map={map} bar={bar} keyboard="on" />
        {isOpen && (
          <Fuse
            key={bar.taken.length}
            idleMs={bar.glass.kind === 'pin' ? menu.idle.pinMs : menu.idle.browseMs}
            whenOut="The menu closes."
          />
        )}
        {bar.state.motorStarted && (
          <Notice
            kind="stop"
            title="That press started the motor"
            says={map.dangers.map((danger) => danger.caution).join(' ')}
          />
        )}
        <ul className={classes['how']} aria-label="How it is handled">
          {menu.opens.some((way) => way.from === 'off') && (
            <li>
              <b>Power</b> on: {map.power.on ? gestureWords(map, map.power.on) : map.power.first}, off:{' '}
              {map.power.off ? gestureWords(map, map.power.off) : 'no key of its own'}
            </li>
          )}
          <li>
            <b>Open</b>{' '}
            {menu.opens
              .map((way) => `${gestureWords(map, way.gesture)}${way.from === 'off' ? ' while dark' : ''}`)
              .join(', or ')}
            {menu.pin ? `, PIN ${menu.pin.factory}` : ''}
          </li>
          <li>
            <b>Next</b> {gestureWords(map, menu.next)}
            {menu.previous ? `, back ${gestureWords(map, menu.previous)}` : ''}
            {menu.turns.length > 0 ? `, other list ${gestureWords(map, menu.turns[0]?.gesture ?? menu.next)}` : ''}
          </li>
          <li>
            <b>Change</b> {changeWords(map, menu.edit)}
          </li>
          {ownWays(map).map(([labels, edit]) => (
            <li key={labels}>
              <b>{labels}</b> {changeWords(map, edit)}
            </li>
          ))}
          <li>
            <b>Leave</b> {menu.close ? gestureWords(map, menu.close) : 'by its last entry, or wait'}
          </li>
        </ul>
        <p className="soft">
          Keys 1 to {Math.min(9, map.keys.length)} press the display; two at once, or two fingers, make a chord. With a
          mouse, Shift and click keeps a key down.
        </p>
      </section>
      {children}
    </div>
  );
}

/** Entries that are changed otherwise than the others, those of one way together. */
function ownWays(map: DisplayMap): readonly (readonly [labels: string, edit: EditRules])[] {
  const ways = new Map<string, { readonly edit: EditRules; readonly labels: string[] }>();
  for (const { label, edit } of map.codes) {
    if (!edit) continue;
    const way = ways.get(JSON.stringify(edit)) ?? { edit, labels: [] };
    way.labels.push(label);
    ways.set(JSON.stringify(edit), way);
  }
  return [...ways.values()].map(({ edit, labels }) => [labels.join(', '), edit]);
}

function changeWords(map: DisplayMap, edit: EditRules): string {
  const by = map.menu?.store.by;
  const stores = by ? `, store ${gestureWords(map, by)}` : '';
  switch (edit.style) {
    case 'live':
      return `${gestureWords(map, edit.up)}, ${gestureWords(map, edit.down)}${stores}`;
    case 'focus':
      return `${gestureWords(map, edit.select)}, then ${gestureWords(map, edit.up)} or ${gestureWords(map, edit.down)}, then ${gestureWords(map, edit.select)}${stores}`;
    case 'enter':
      return `${gestureWords(map, edit.begin)}, then ${gestureWords(map, edit.up)} or ${gestureWords(map, edit.down)}, then ${gestureWords(map, edit.end)}${stores}`;
    case 'digits':
      return `${gestureWords(map, edit.begin)}, count ${gestureWords(map, edit.count)}${edit.back ? ` or ${gestureWords(map, edit.back)}` : ''}, next digit ${gestureWords(map, edit.walk)}${edit.end ? `, then ${gestureWords(map, edit.end)}` : ''}${stores}`;
  }
}
