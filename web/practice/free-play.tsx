import { findCode, codeTitle, valueWords, type DisplayMap } from '@decurio/core';
import { ActButton } from '../ui/act-button.js';
import { useHandlebar } from '../ui/handlebar/use-handlebar.js';
import { Stage } from './stage.js';
import classes from './practice-page.module.css';

/** The display and nothing to do: what was changed stands beside it. */
export function FreePlay({ map }: { readonly map: DisplayMap }) {
  const bar = useHandlebar(map);
  const changed = map.codes.filter((code) => bar.state.stored[code.label] !== code.factory);
  const shown = bar.glass.kind === 'menu' ? findCode(map, bar.glass.label) : undefined;
  return (
    <Stage map={map} bar={bar}>
      <section className={classes['task']} aria-label="What it holds">
        <h2>{shown ? codeTitle(shown) : 'Try its menu'}</h2>
        {shown && bar.glass.kind === 'menu' && <p>{valueWords(shown, bar.glass.raw)}</p>}
        {shown?.note !== undefined && <p className="soft">{shown.note}</p>}
        <p>{changed.length === 0 ? 'Everything is as delivered.' : 'Changed so far:'}</p>
        <table aria-label="Changed">
          <tbody>
            {changed.map((code) => (
              <tr key={code.label}>
                <th scope="row">{code.label}</th>
                <td>{codeTitle(code)}</td>
                <td className="num">{valueWords(code, bar.state.stored[code.label] ?? 0)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <ActButton onAct={() => bar.lay()}>As delivered</ActButton>
      </section>
    </Stage>
  );
}
