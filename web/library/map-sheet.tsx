import { formatRaw, functionTitle, keyLabel, mapTitle, meaningOf, type Code, type Gesture, type DisplayMap } from '@decurio/core';
import type { LibraryEntry } from '@decurio/contract';
import { Notice } from '../ui/notice.js';
import classes from './library-page.module.css';

const SOURCES = { measured: 'measured on a unit', makersPaper: "maker's paper", hearsay: 'hearsay, never a target' } as const;

/** A display map as a person reads it: how it is entered and left, and every code. */
export function MapSheet({ entry }: { readonly entry: LibraryEntry<'displayMap'> }) {
  const map = entry.document;
  return (
    <>
      <p className="cap">Display map · version {entry.version}</p>
      <h1>{mapTitle(map)}</h1>
      <p>{map.tellBy}</p>
      {map.confirmed ? (
        <p className="soft">
          Confirmed by {map.confirmed.by} on {map.confirmed.on} against unit {map.confirmed.unit}, firmware {map.confirmed.firmware}.
        </p>
      ) : (
        <Notice kind="care" says="Nobody has confirmed this map against a real unit yet." />
      )}
      {map.dangers.map((danger) => (
        <Notice key={danger.caution} kind="care" says={danger.caution} />
      ))}
      <dl className={classes['facts']}>
        <Fact name="Power up" says={`${map.powerUp.first} Then ${gesture(map, map.powerUp.gesture)}.`} />
        <Fact name="Menu opens" says={gesture(map, map.menu.open)} />
        <Fact name="Menu is left" says={gesture(map, map.menu.close)} />
        <Fact name="Closes by itself" says={`after ${map.menu.idleMs / 1000} s; a change not stored is ${map.menu.onTimeout === 'keep' ? 'kept' : 'dropped'}`} />
        <Fact name="Next code" says={`${keyLabel(map, map.menu.next)}; after the last one ${map.menu.afterLast === 'wrap' ? 'it starts again' : 'the menu closes'}`} />
      </dl>
      <table className={classes['table']}>
        <thead>
          <tr className="cap">
            <th scope="col">Code</th>
            <th scope="col">Sets</th>
            <th scope="col">Range</th>
            <th scope="col">Delivered at</th>
            <th scope="col">Acts</th>
            <th scope="col">Known from</th>
          </tr>
        </thead>
        <tbody>
          {map.codes.map((code) => (
            <tr key={code.label}>
              <th scope="row">{code.label}</th>
              <td>
                {functionTitle(code.function)}
                {code.note !== undefined && <small>{code.note}</small>}
              </td>
              <td>{range(code)}</td>
              <td>
                {code.encoding.kind === 'table' && <span className="num">{formatRaw(code, code.factory)} </span>}
                {meaningOf(code, code.factory)}
              </td>
              <td>
                {code.access === 'locked' ? 'locked, ' : ''}
                {code.effect === 'acts' ? (code.actsAfter === 'restart' ? 'after a restart' : 'at once') : code.effect === 'displayOnly' ? 'display only' : 'not verified'}
              </td>
              <td>{SOURCES[code.source]}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

const Fact = ({ name, says }: { readonly name: string; readonly says: string }) => (
  <div>
    <dt>{name}</dt>
    <dd>{says}</dd>
  </div>
);

const gesture = (map: DisplayMap, g: Gesture): string =>
  g.kind === 'tap' ? `tap ${keyLabel(map, g.key)}` : `hold ${g.keys.map((key) => keyLabel(map, key)).join(' and ')} for ${g.ms / 1000} s`;

function range(code: Code): string {
  if (code.encoding.kind === 'table') return code.encoding.entries.map((e) => `${formatRaw(code, e.raw)} ${e.title}`).join(', ');
  const sentinels = code.encoding.sentinels.map((s) => `; ${formatRaw(code, s.raw)} is ${s.title}`).join('');
  return `${formatRaw(code, code.range.min)} to ${formatRaw(code, code.range.max)} ${code.encoding.unit}${sentinels}`;
}
