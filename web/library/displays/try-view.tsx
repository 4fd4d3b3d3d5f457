import { Link } from 'react-router';
import { isKeyed, type DisplayMap } from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import { Handlebar } from '../../ui/handlebar/handlebar.js';
import { useHandlebar } from '../../ui/handlebar/use-handlebar.js';
import { Notice } from '../../ui/notice.js';
import classes from './displays.module.css';

/** The display itself, to be pressed as on the handlebar. */
export function TryView({ map }: { readonly map: DisplayMap }) {
  const bar = useHandlebar(map);
  if (!isKeyed(map))
    return (
      <Notice
        kind="note"
        says={`This unit has no menu of its own: it is set through ${map.instructions?.via ?? 'a connection'}.`}
      />
    );
  const changed = map.codes.filter((code) => bar.state.stored[code.label] !== code.factory);
  return (
    <div className={classes['try']}>
      <Handlebar map={map} bar={bar} keyboard="on" />
      {bar.state.motorStarted && (
        <Notice
          kind="stop"
          title="That press started the motor"
          says={map.dangers.map((danger) => danger.caution).join(' ')}
        />
      )}
      <p className="soft">
        Keys 1 to {Math.min(9, map.keys.length)} press the display; two at once make a chord. With a mouse, Shift and
        click keeps a key down. The menu closes by itself as on the handlebar.
      </p>
      <p>
        {changed.length === 0
          ? 'Everything is as delivered.'
          : `Stored so far: ${changed.map((code) => `${code.label} ${bar.state.stored[code.label]}`).join(', ')}.`}
      </p>
      <div className={classes['acts']}>
        <ActButton onAct={() => bar.lay()}>As delivered</ActButton>
        <Link to={`/practice/${map.id}`}>Practise on it</Link>
      </div>
    </div>
  );
}
