import {
  formatRaw,
  codeTitle,
  glassLabel,
  meaningBeside,
  meaningOf,
  rangeWords,
  valuesInOrder,
  type Code,
  type DisplayMap,
} from '@decurio/core';
import { Notice } from '../../ui/notice.js';
import { Facts } from '../facts.js';
import { actsWords, handling, listedWhile, pageTitle, SOURCES } from './map-words.js';
import classes from '../library-page.module.css';

/** A display map as a person reads it: how it is entered and left, and every code. */
export function MapSheet({ map }: { readonly map: DisplayMap }) {
  return (
    <>
      {map.dangers.map((danger) => (
        <Notice key={danger.caution} kind="care" says={danger.caution} />
      ))}
      <Facts rows={handling(map)} />
      {map.icons && <Facts rows={map.icons.map((icon) => [`Lit: ${icon.title}`, icon.proves] as const)} />}
      {map.notes !== undefined && <p className="soft">{map.notes}</p>}
      <table className={classes['table']}>
        <thead>
          <tr className="cap">
            <th scope="col">Code</th>
            <th scope="col">Sets</th>
            <th scope="col">Values</th>
            <th scope="col">Delivered at</th>
            <th scope="col">Acts</th>
            <th scope="col">Known from</th>
          </tr>
        </thead>
        <tbody>
          {map.codes.map((code) => (
            <tr key={code.label} id={`code-${code.label}`}>
              <th scope="row">
                {glassLabel(code)}
                {pageTitle(map, code.label) !== null && <small>{pageTitle(map, code.label)}</small>}
                {listedWhile(map, code) !== null && <small>{listedWhile(map, code)}</small>}
              </th>
              <td>
                {codeTitle(code)}
                {code.note !== undefined && <small>{code.note}</small>}
              </td>
              <td>{values(code)}</td>
              <td>
                {code.encoding.kind === 'table' && <span className="num">{formatRaw(code, code.factory)} </span>}
                {code.encoding.kind === 'table' ? meaningBeside(code, code.factory) : meaningOf(code, code.factory)}
              </td>
              <td>{actsWords(code)}</td>
              <td>{SOURCES[code.source]}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function values(code: Code): string {
  if (code.encoding.kind === 'table' || code.encoding.kind === 'pair')
    return valuesInOrder(code)
      .map((raw) => `${formatRaw(code, raw)} ${meaningBeside(code, raw)}`.trim())
      .join(', ');
  if (code.encoding.kind !== 'line') return rangeWords(code);
  const { unit, sentinels, doubtfulFrom } = code.encoding;
  return [
    `${rangeWords(code)} ${unit}`.trim(),
    ...sentinels.map((s) => `${formatRaw(code, s.raw)} is ${s.title}`),
    ...(doubtfulFrom === undefined ? [] : [`from ${formatRaw(code, doubtfulFrom)} on perhaps no limit`]),
  ].join('; ');
}
