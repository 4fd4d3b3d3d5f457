import { TextInput } from '@mantine/core';
import { ActButton } from '../../ui/act-button.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import type { Visit } from '../use-visit.js';
import { Dialog } from '../../ui/dialog.js';
import panel from '../panel.module.css';

/** A code on the glass that the map does not know: written down as shown, and left alone. */
export function StrayDialog({ visit, onClose }: { readonly visit: Visit; readonly onClose: () => void }) {
  const draft = useDraft(`stray.${visit.state?.visitId ?? ''}`, { shown: '', value: '' });
  const { shown, value } = draft.value;
  const add = async () => {
    const problem = await visit.act('strayFound', { shown: shown.trim(), value: value.trim() });
    if (problem) return;
    draft.forget();
    onClose();
  };
  return (
    <Dialog onClose={onClose} title="The glass shows another code">
      <form
        className={panel['stack']}
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <Begun draft={draft} />
        <p>It is not on this display&apos;s map. Write it down as shown; nobody changes it, and a lead looks at it.</p>
        <div className={panel['row']}>
          <TextInput
            label="Code, as shown"
            value={shown}
            onChange={(e) => draft.change({ shown: e.target.value })}
            required
            maxLength={12}
            data-autofocus
          />
          <TextInput
            label="Its value"
            value={value}
            onChange={(e) => draft.change({ value: e.target.value })}
            required
            maxLength={12}
          />
        </div>
        <div className={panel['acts']}>
          <ActButton type="submit" look="main" onAct={() => undefined}>
            Write it down
          </ActButton>
          <ActButton onAct={onClose}>Back</ActButton>
        </div>
      </form>
    </Dialog>
  );
}
