import { NumberInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { BenchView } from '@decurio/contract';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import type { Visit } from '../use-visit.js';
import classes from '../panel.module.css';
import { PackConditionField, PackSays, type PackCondition } from './pack-fields.js';

/** A pack that stopped its unit: where it stands until somebody knows, and the meter read once more. */
export function PackAgain({ bench, visit }: { readonly bench: BenchView; readonly visit: Visit }) {
  const [volts, setVolts] = useState<number | string>('');
  const [condition, setCondition] = useState<PackCondition>('sound');
  const [words, setWords] = useState('');
  const [busy, setBusy] = useState(false);
  const { house } = useSession();
  const number = house?.fireService ? `: ${house.fireService}` : '';
  const packV = volts === '' ? null : Number(volts);
  const write = async () => {
    if (packV === null) return;
    setBusy(true);
    const problem = await visit.act('packMeasured', { packV, packCondition: condition, words: words.trim() });
    setBusy(false);
    if (!problem) setVolts('');
  };
  return (
    <form
      className={classes['stack']}
      onSubmit={(event) => {
        event.preventDefault();
        void write();
      }}
    >
      <Notice
        kind="care"
        title="Where it stands until somebody knows"
        says={`A pack that is hot, hissing, swollen, wet or was dropped is not carried through the building. It stands outdoors, apart from other packs and from what burns, and nobody leaves with it: a damaged pack travels only by the rules for damaged packs. If it smokes, keep away and call the fire service${number}.`}
      />
      <div className={classes['row']}>
        <NumberInput
          label="By meter now, at rest"
          suffix=" V"
          value={volts}
          onChange={setVolts}
          decimalScale={2}
          hideControls
          min={0}
          max={120}
          required
        />
        <TextInput
          label="What was done meanwhile"
          placeholder="Charged under supervision, two hours at rest"
          value={words}
          onChange={(e) => setWords(e.target.value)}
          maxLength={200}
        />
      </div>
      <PackConditionField value={condition} onChange={setCondition} />
      {packV !== null && <PackSays pack={bench.type.pack} packV={packV} />}
      <div className={classes['acts']}>
        <ActButton type="submit" busy={busy || visit.isAwaited} disabled={packV === null} onAct={() => undefined}>
          Write the new reading
        </ActButton>
      </div>
    </form>
  );
}
