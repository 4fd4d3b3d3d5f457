import { Select, Textarea } from '@mantine/core';
import { odometerKm, PARTS, type Part, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { api } from '../state/api.js';
import { ActButton } from '../ui/act-button.js';
import { Begun } from '../drafts/begun.js';
import { useDraft } from '../drafts/use-draft.js';
import { FigureField } from '../ui/figure-field.js';
import { Notice } from '../ui/notice.js';
import { whenDay } from '../ui/when.js';
import { PackConditionField, PackSays, type PackCondition } from './pack/pack-fields.js';
import type { Visit } from './use-visit.js';
import { Dialog } from '../ui/dialog.js';
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
  brakes: 'What was proved of levers, motor and brakes is void: it is proved again.',
  throttle: 'What was proved of the throttle is void: it is proved again.',
  pedals: 'What was proved of the pedals and their sensor is void: it is proved again.',
  lights: 'What was proved of the lights and the bell is void: it is proved again.',
};

const asNumber = (typed: number | ''): number | null => (typed === '' ? null : typed);

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
  const draft = useDraft(`part.${state.visitId}.${state.parts.length}`, {
    part: 'tyre' as Part,
    words: '',
    old: (odometerKm(state) ?? '') as number | '',
    fresh: 0 as number | '',
    volts: '' as number | '',
    condition: null as PackCondition | null,
    spare: '',
  });
  const { part, words, old, fresh, volts, condition } = draft.value;
  const { data: spares = [] } = api.useSparesQuery(bench.unit.id, { skip: part !== 'display' });
  const spare = part === 'display' ? spares.find(({ visitId }) => visitId === draft.value.spare) : undefined;
  const packV = part === 'pack' ? asNumber(volts) : null;
  const write = async () => {
    const isDisplay = part === 'display';
    const problem = await visit.act('partReplaced', {
      part,
      words: words.trim(),
      oldOdometerKm: isDisplay ? asNumber(old) : null,
      newOdometerKm: isDisplay ? asNumber(fresh) : null,
      packV,
      ...(part === 'pack' && condition !== null ? { packCondition: condition } : {}),
      ...(spare ? { spare: { serial: spare.serial, visitId: spare.visitId, values: spare.values } } : {}),
    });
    if (problem) return;
    draft.forget();
    onClose();
  };
  return (
    <Dialog onClose={onClose} title="A part was replaced">
      <form
        className={classes['stack']}
        onSubmit={(event) => {
          event.preventDefault();
          void write();
        }}
      >
        <Begun draft={draft} />
        <Select
          label="Part"
          allowDeselect={false}
          value={part}
          onChange={(value) => draft.change({ part: (value ?? 'tyre') as Part })}
          data={Object.entries(PARTS).map(([value, label]) => ({ value, label }))}
        />
        <Notice kind="care" says={VOIDS[part]} />
        {part === 'display' && spares.length > 0 && (
          <Select
            label="What goes on"
            allowDeselect={false}
            value={spare?.visitId ?? ''}
            onChange={(visitId) => draft.change({ spare: visitId ?? '' })}
            data={[
              { value: '', label: 'A new display, as delivered' },
              ...spares.map(({ visitId, serial, sealedAt, orderNumber }) => ({
                value: visitId,
                label: `Spare ${serial}, keyed ${whenDay(sealedAt)} for ${orderNumber}`,
              })),
            ]}
          />
        )}
        {part === 'display' && (
          <div className={classes['row']}>
            <FigureField label="Old odometer" unit="km" value={old} onChange={(old) => draft.change({ old })} />
            <FigureField label="New one shows" unit="km" value={fresh} onChange={(fresh) => draft.change({ fresh })} />
          </div>
        )}
        {part === 'pack' && (
          <FigureField
            label="New pack by meter"
            unit="V"
            value={volts}
            onChange={(volts) => draft.change({ volts })}
            required
          />
        )}
        {part === 'pack' && (
          <PackConditionField value={condition} onChange={(condition) => draft.change({ condition })} />
        )}
        {packV !== null && <PackSays pack={bench.type.pack} packV={packV} />}
        <Textarea
          label={part === 'pack' ? 'What was changed, why, and where the old pack went' : 'What was changed, and why'}
          value={words}
          onChange={(e) => draft.change({ words: e.target.value })}
          minLength={3}
          maxLength={500}
          required
          rows={2}
          data-autofocus
        />
        <p className="soft">Electrical work beyond plugs is for a qualified person.</p>
        <div className={classes['acts']}>
          <ActButton type="submit" look="care" disabled={part === 'pack' && condition === null} onAct={() => undefined}>
            Record it
          </ActButton>
          <ActButton onAct={onClose}>Nothing was replaced</ActButton>
        </div>
      </form>
    </Dialog>
  );
}
