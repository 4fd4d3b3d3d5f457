import { Loader } from '@mantine/core';
import { IconAlertTriangle, IconCheck, IconHandStop, IconInfoCircle } from '@tabler/icons-react';
import { ActButton } from './act-button.js';
import classes from './notice.module.css';

const ICONS = { stop: IconHandStop, care: IconAlertTriangle, note: IconInfoCircle, done: IconCheck } as const;

export interface NoticeProps {
  readonly kind: keyof typeof ICONS;
  readonly title?: string;
  readonly says: string;
  readonly act?: { readonly label: string; readonly onAct: () => void; readonly hotkey?: string };
  /** Alone on a page, in its middle. */
  readonly page?: boolean;
}

/** Says what happened, what is safe, and what to do; announced to a screen reader. */
export function Notice({ kind, title, says, act, page = false }: NoticeProps) {
  const Icon = ICONS[kind];
  return (
    <div
      role={kind === 'stop' ? 'alert' : 'status'}
      className={`${classes['notice']} ${classes[kind]} ${page ? classes['page'] : ''}`}
    >
      <Icon aria-hidden="true" size={22} stroke={1.8} />
      <div>
        {title !== undefined && (page ? <h1>{title}</h1> : <strong>{title}</strong>)}
        <p>{says}</p>
      </div>
      {act && (
        <ActButton onAct={act.onAct} {...(act.hotkey === undefined ? {} : { hotkey: act.hotkey })}>
          {act.label}
        </ActButton>
      )}
    </div>
  );
}

/** Shown while something is fetched. */
export const Busy = () => (
  <div className={classes['busy']} role="status" data-busy>
    <Loader color="verdigris" type="dots" />
    <span className="hidden-words">One moment</span>
  </div>
);
