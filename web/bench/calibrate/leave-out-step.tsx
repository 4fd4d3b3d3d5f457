import { Modal, Textarea } from '@mantine/core';
import { useState } from 'react';
import { ActButton } from '../../ui/act-button.js';
import type { Visit } from '../use-visit.js';
import classes from './calibrate.module.css';

/** Speed held against a reference by other means, in words, or openly not at all. */
export function LeaveOutStep({ visit, onClose }: { readonly visit: Visit; readonly onClose: () => void }) {
  const [words, setWords] = useState('');
  const done = words.trim() !== '';
  const go = () => {
    void visit.act('stepByHand', { step: 'calibrate', done, words: words.trim() });
    onClose();
  };
  return (
    <Modal opened onClose={onClose} title="Leave Calibrate without readings?" centered>
      <form
        className={classes['stack']}
        onSubmit={(event) => {
          event.preventDefault();
          go();
        }}
      >
        <p>
          A nominal wheel size is rarely right, and the cap counts in the shown speed. Readings already kept stay in the
          record.
        </p>
        <Textarea
          label="Done by hand"
          description="Against which reference, at what speeds, what came out. Left empty, every paper says that true speed was not measured."
          value={words}
          onChange={(e) => setWords(e.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'PageDown' && (event.key !== 'Enter' || event.shiftKey)) return;
            event.preventDefault();
            go();
          }}
          rows={3}
          maxLength={500}
          data-scan-guard="words"
          data-autofocus
        />
        <div className={classes['entryActs']}>
          <ActButton type="submit" look="care" hotkey="Enter" onAct={() => undefined}>
            {done ? 'Done by hand, to prove' : 'Left out, to prove'}
          </ActButton>
          <ActButton onAct={onClose}>Back to the readings</ActButton>
        </div>
      </form>
    </Modal>
  );
}
