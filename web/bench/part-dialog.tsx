import { Modal, NumberInput, Select, Textarea } from '@mantine/core';
import { useState } from 'react';
import { odometerKm, PARTS, type Part, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { ActButton } from '../ui/act-button.js';
import { Notice } from '../ui/notice.js';
import { PackConditionField, PackSays, type PackCondition } from './pack/pack-fields.js';
import type { Visit } from './use-visit.js';
import classes from './panel.module.css';

const VOIDS: Readonly<Record<Part, string>> = {
  display:
    'Everything that was read or keyed is void: the unit is checked in again with its new display. Kilometres are carried forward.',
  controller: 'What was read and keyed is void: the codes are read as found again, all of them.',
  firmware:
    'What was read, keyed and proved is void: an update may set every code anew. Say which version it had and which it has.',
  motor: 'The read-back is void: restart and read again. Runs made with the old wheel tell nothing of this one.',
  tyre: 'Runs made with the old tyre are void: it is calibrated again.',
  pack: 'The read-back is void: values may be lost while the pack is out. Restart and read again.',
};

const asNumber = (typed: number | string): number | null => (typed === '' ? null : Number(typed));

/** A part was changed during the visit: says what that voids before it is written. */
export function PartDialog({
  bench,
  state,
  visit,
  onClose,
}: {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
  readonly onClose: () => void;
}) {
  const [part, setPart] = useState<Part>('tyre');
  const [words, setWords] = useState('');
  const [old, setOld] = useState<number | string>(odometerKm(state) ?? '');
  const [fresh, setFresh] = useState<number | string>(0);
  const [volts, setVolts] = useState<number | string>('');
  const [condition, setCondition] = useState<PackCondition>('sound');
  const packV = part === 'pack' ? asNumber(volts) : null;
  const write = async () => {
    const isDisplay = part === 'display';
    const problem = await visit.act('partReplaced', {
      part,
      words: words.trim(),
      oldOdometerKm: isDisplay ? asNumber(old) : null,
      newOdometerKm: isDisplay ? asNumber(fresh) : null,
      packV,
      ...(part === 'pack' ? { packCondition: condition } : {}),
    });
    if (!problem) onClose();
  };
  return (
    <Modal opened onClose={onClose} title="A part was replaced" centered>
      <form
        className={classes['stack']}
        onSubmit={(event) => {
          event.preventDefault();
          void write();
        }}
      >
        <Select
          label="Part"
          allowDeselect={false}
          value={part}
          onChange={(value) => setPart((value ?? 'tyre') as Part)}
          data={Object.entries(PARTS).map(([value, label]) => ({ value, label }))}
        />
        <Notice kind="care" says={VOIDS[part]} />
        {part === 'display' && (
          <div className={classes['row']}>
            <NumberInput label="Old odometer" suffix=" km" value={old} onChange={setOld} hideControls min={0} />
            <NumberInput label="New one shows" suffix=" km" value={fresh} onChange={setFresh} hideControls min={0} />
          </div>
        )}
        {part === 'pack' && (
          <NumberInput
            label="New pack by meter"
            suffix=" V"
            value={volts}
            onChange={setVolts}
            decimalScale={2}
            hideControls
            required
            min={0}
          />
        )}
        {part === 'pack' && <PackConditionField value={condition} onChange={setCondition} />}
        {packV !== null && <PackSays pack={bench.type.pack} packV={packV} />}
        <Textarea
          label={part === 'pack' ? 'What was changed, why, and where the old pack went' : 'What was changed, and why'}
          value={words}
          onChange={(e) => setWords(e.target.value)}
          minLength={3}
          maxLength={500}
          required
          rows={2}
          data-autofocus
        />
        <p className="soft">Electrical work beyond plugs is for a qualified person.</p>
        <div className={classes['acts']}>
          <ActButton type="submit" look="care" onAct={() => undefined}>
            Record it
          </ActButton>
          <ActButton onAct={onClose}>Nothing was replaced</ActButton>
        </div>
      </form>
    </Modal>
  );
}
