import { findCode, formatRaw, type DisplayMap, type Glass as GlassView } from '@decurio/core';
import classes from './glass.module.css';

export interface GlassProps {
  readonly map: DisplayMap;
  readonly view: GlassView;
  /** What stands over it, such as "display should show". */
  readonly says: string;
}

/** The vehicle's display as it should look now: code and value in seven segments, or riding. */
export function Glass({ map, view, says }: GlassProps) {
  const code = view.kind === 'menu' ? findCode(map, view.label) : undefined;
  const value = view.kind === 'menu' && code ? formatRaw(code, view.raw) : '';
  return (
    <div className={classes['glass']} role="group" aria-label={says}>
      {view.kind === 'menu' ? (
        <>
          <Field title={`${says} · code`} text={view.label} lit={view.focus === 'name'} />
          <Field title="Value" text={value.padStart(4, ' ')} lit={view.focus === 'value'} />
        </>
      ) : (
        <Field title={says} text="  0" note="speed: the menu is closed" lit={false} />
      )}
    </div>
  );
}

function Field({ title, text, note, lit }: { readonly title: string; readonly text: string; readonly note?: string; readonly lit: boolean }) {
  return (
    <div className={classes['field']} data-lit={lit}>
      <span className={classes['title']}>{title}</span>
      <span className={classes['digits']} aria-hidden="true">
        <span className={classes['ghost']}>{text.replace(/[^.]/g, '8')}</span>
        <span className={classes['shown']}>{text.replace(/ /g, '!')}</span>
      </span>
      <span className="hidden-words">{text.trim()}</span>
      {note !== undefined && <span className={classes['note']}>{note}</span>}
    </div>
  );
}
