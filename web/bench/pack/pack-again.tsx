import { TextInput } from '@mantine/core';
import { useState } from 'react';
import type { BenchView } from '@decurio/contract';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import { FigureField } from '../../ui/figure-field.js';
import { Notice } from '../../ui/notice.js';
import type { Visit } from '../use-visit.js';
import classes from '../panel.module.css';
import { PackConditionField, PackSays, type PackCondition } from './pack-fields.js';

/** Where a pack that stopped its unit stands until somebody knows. */
export function Quarantine() {
  const { house } = useSession();
  const call = house?.fireService ? `the fire service: ${house.fireService}` : 'the fire service';
  return (
    <Notice
      kind="care"
      title="Until somebody knows, the pack stands apart"
      says={`Outdoors, away from other packs and what burns; one that is hot, hissing, swollen, wet or was dropped is not carried through the building. A damaged pack travels only by the rules for damaged packs. If it smokes, keep away and call ${call}.`}
    />
  );
}

/** The meter read once more, and the pack looked at. */
export function PackAgain({
  bench,
  visit,
  onDone,
}: {
  readonly bench: BenchView;
  readonly visit: Visit;
  readonly onDone: () => void;
}) {
  const draft = useDraft(`packAgain.${visit.state?.visitId ?? ''}`, {
    volts: '' as number | '',
    condition: null as PackCondition | null,
    words: '',
  });
  const { volts, condition, words } = draft.value;
  const [busy, setBusy] = useState(false);
  const packV = volts === '' ? null : volts;
  const write = async () => {
    if (packV === null || condition === null) return;
    setBusy(true);
    const problem = await visit.act('packMeasured', { packV, packCondition: condition, words: words.trim() });
    setBusy(false);
    if (problem) return;
    draft.forget();
    onDone();
  };
  return (
    <form
      className={classes['stack']}
      onSubmit={(event) => {
        event.preventDefault();
        void write();
      }}
    >
      <Begun draft={draft} />
      <div className={classes['row']}>
        <FigureField
          label="By meter now, at rest"
          unit="V"
          value={volts}
          onChange={(volts) => draft.change({ volts })}
          required
          autoFocus
        />
        <TextInput
          label="What was done meanwhile"
          placeholder="Charged under supervision, two hours at rest"
          value={words}
          onChange={(e) => draft.change({ words: e.target.value })}
          maxLength={200}
        />
      </div>
      <PackConditionField value={condition} onChange={(condition) => draft.change({ condition })} />
      {packV !== null && <PackSays pack={bench.type.pack} packV={packV} />}
      <div className={classes['acts']}>
        <ActButton
          type="submit"
          look="main"
          busy={busy || visit.isAwaited}
          disabled={packV === null || condition === null}
          onAct={() => undefined}
        >
          Write the new reading
        </ActButton>
        <ActButton onAct={onDone}>Not now</ActButton>
      </div>
    </form>
  );
}
