import { Modal, TextInput } from '@mantine/core';
import { useState } from 'react';
import { ActButton } from '../../ui/act-button.js';
import type { Visit } from '../use-visit.js';
import panel from '../panel.module.css';

/** A code on the glass that the map does not know: written down as shown, and left alone. */
export function StrayDialog({ visit, onClose }: { readonly visit: Visit; readonly onClose: () => void }) {
  const [shown, setShown] = useState('');
  const [value, setValue] = useState('');
  const add = async () => {
    const problem = await visit.act('strayFound', { shown: shown.trim(), value: value.trim() });
    if (!problem) onClose();
  };
  return (
    <Modal opened onClose={onClose} title="The glass shows another code" centered>
      <form
        className={panel['stack']}
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <p>It is not on this display&apos;s map. Write it down as shown; nobody changes it, and a lead looks at it.</p>
        <div className={panel['row']}>
          <TextInput
            label="Code, as shown"
            value={shown}
            onChange={(e) => setShown(e.target.value)}
            required
            maxLength={12}
            data-autofocus
          />
          <TextInput
            label="Its value"
            value={value}
            onChange={(e) => setValue(e.target.value)}
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
    </Modal>
  );
}
