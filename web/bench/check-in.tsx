import { Checkbox, Textarea, TextInput } from '@mantine/core';
import { useState, type ReactNode } from 'react';
import { ValidationError } from 'yup';
import { checkPack, mapTitle, missingPhotos, pressureRead, type VisitState } from '@decurio/core';
import { evidenceSchemas, type BenchView } from '@decurio/contract';
import type { ApiProblem } from '../state/api.js';
import { ActButton } from '../ui/act-button.js';
import { FigureField } from '../ui/figure-field.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { Notice } from '../ui/notice.js';
import { Begun } from '../drafts/begun.js';
import { useDraft } from '../drafts/use-draft.js';
import { Photos } from './photos/photos.js';
import type { Visit } from './use-visit.js';
import { PackConditionField, PackSays, type PackCondition } from './pack/pack-fields.js';
import { WhichDisplay } from './which-display.js';
import { KeyCap } from '../ui/keys/key-cap.js';
import classes from './panel.module.css';

type Typed = number | '';
const asNumber = (typed: Typed): number | null => (typed === '' ? null : typed);

const EMPTY = {
  revision: false,
  odometer: '' as Typed,
  volts: '' as Typed,
  pack: null as PackCondition | null,
  tyre: '' as Typed,
  /** That it lies outside the type's range was asked. */
  tyreAsked: false,
  cables: false,
  clamp: false,
  accessories: '',
  damage: '',
};

/** Step 1: which display it is, what the meter and odometer say, and the state it came in. */
export function CheckIn({
  bench,
  state,
  visit,
}: {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
}) {
  const isToBeTold = bench.lookAlikes.length > 1 && state.displayTold === null;
  const draft = useDraft(`${state.visitId}.${state.parts.length}.checkIn`, {
    ...EMPTY,
    revision: state.displayTold !== null,
  });
  const { change, forget } = draft;
  const { odometer, volts, pack, tyre, tyreAsked, cables, clamp, accessories, damage } = draft.value;
  const revision = draft.value.revision || state.displayTold !== null;
  const [fields, setFields] = useState<Readonly<Record<string, string>>>({});
  /** A field that is typed into anew is not wrong any more. */
  const type = (field: string, part: Partial<typeof EMPTY>) => {
    setFields(({ [field]: _mended, ...others }) => others);
    change(part);
  };
  const tyreBar = state.opened.setup.speed?.tyreBar;
  const checkedBar = pressureRead(state);
  const isOddTyre =
    checkedBar === null && tyreBar !== undefined && tyre !== '' && (tyre < tyreBar.from || tyre > tyreBar.to);
  const packV = asNumber(volts);
  const checked = packV === null ? null : checkPack(bench.type.pack, packV);
  const packCheck = checked?.ok ? checked.value : null;
  const isStopped = pack === 'unsafe' || packCheck?.holds === true;
  const missing = !isStopped ? missingPhotos(state, 'checkIn') : [];

  // Among figures a letter is no entry: what was looked at is ticked without leaving them.
  useHotkeys({
    D: isToBeTold ? undefined : () => change({ revision: !revision }),
    C: () => change({ cables: !cables }),
    K: () => change({ clamp: !clamp }),
    // What stops the unit is taken back by hand alone.
    L: pack === 'unsafe' ? undefined : () => type('packCondition', { pack: 'sound' }),
  });

  const submit = async () => {
    if (isOddTyre && !tyreAsked) return change({ tyreAsked: true });
    const data = {
      revisionConfirmed: revision,
      odometerKm: asNumber(odometer),
      packV: packV ?? undefined,
      packCondition: pack ?? undefined,
      tyreBar: checkedBar ?? asNumber(tyre),
      cablesFree: cables,
      clampSound: clamp,
      accessories: accessories.trim(),
      damage: damage.trim(),
    };
    try {
      const valid = evidenceSchemas.checkedIn.validateSync(data, { abortEarly: false, strict: true });
      setFields({});
      const problem: ApiProblem | null = await visit.act('checkedIn', { ...valid, revisionConfirmed: true });
      if (problem === null) return forget();
      if (problem.fields)
        setFields(
          Object.fromEntries(Object.entries(problem.fields).map(([path, says]) => [path.replace(/^data\./, ''), says])),
        );
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      setFields(Object.fromEntries(error.inner.map((e) => [e.path ?? '', e.message])));
    }
  };

  return (
    <form
      className={`${classes['panel']} ${classes['tight']}`}
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <div className={classes['head']}>
        <p className="cap">Check in</p>
        <Begun draft={draft} />
      </div>
      {isToBeTold ? (
        <>
          <WhichDisplay bench={bench} visit={visit} onTold={() => change({ revision: true })} />
          {fields['revisionConfirmed'] !== undefined && <Notice kind="care" says="Say first which display it is." />}
        </>
      ) : (
        <Checkbox
          size="md"
          checked={revision}
          onChange={(e) => change({ revision: e.target.checked })}
          label={withKey(`The display is a ${mapTitle(bench.map)}`, 'D')}
          description={bench.map.tellBy}
          error={fields['revisionConfirmed']}
        />
      )}
      <div className={classes['row']}>
        <FigureField
          label="Pack by meter"
          unit="V"
          value={volts}
          onChange={(volts) => type('packV', { volts })}
          autoFocus
          error={fields['packV']}
        />
        <FigureField
          label="Odometer"
          unit="km"
          value={odometer}
          onChange={(odometer) => type('odometerKm', { odometer })}
          error={fields['odometerKm']}
        />
        {checkedBar === null && (
          <FigureField
            label="Tyre pressure"
            unit="bar"
            hint={tyreBar ? `type: ${tyreBar.from} to ${tyreBar.to} bar, cold` : 'cold'}
            care={isOddTyre ? tyreCare(tyreAsked) : null}
            value={tyre}
            onChange={(tyre) => type('tyreBar', { tyre, tyreAsked: false })}
            error={fields['tyreBar']}
          />
        )}
      </div>
      {packV !== null && <PackSays pack={bench.type.pack} packV={packV} />}
      <PackConditionField
        value={pack}
        onChange={(condition) => type('packCondition', { pack: condition })}
        error={fields['packCondition']}
        soundKey={pack === 'unsafe' ? null : 'L'}
      />
      {pack === 'unsafe' && (
        <Notice
          kind="stop"
          says="It stops here: do not power or charge it. It goes to whoever is qualified, and Line shows it as held."
        />
      )}
      <div className={classes['choices']}>
        <Checkbox
          size="md"
          checked={cables}
          onChange={(e) => change({ cables: e.target.checked })}
          label={withKey('No cable pinched', 'C')}
        />
        <Checkbox
          size="md"
          checked={clamp}
          onChange={(e) => change({ clamp: e.target.checked })}
          label={withKey('Display clamp not overtightened', 'K')}
          description={cables && clamp ? undefined : 'Either left open: held for a lead.'}
        />
      </div>
      <div className={classes['row']}>
        <TextInput
          label="Came with"
          placeholder="charger, 2 keys"
          value={accessories}
          onChange={(e) => change({ accessories: e.target.value })}
          maxLength={200}
        />
        <Textarea
          label="Damage"
          placeholder="none seen"
          value={damage}
          onChange={(e) => change({ damage: e.target.value })}
          maxLength={1000}
          rows={1}
          autosize
          maxRows={3}
        />
      </div>
      <Photos unitId={bench.unit.id} state={state} visit={visit} step="checkIn" subjects={['damage']} />
      <div className={classes['acts']}>
        <ActButton
          type="submit"
          look={isStopped ? 'care' : 'main'}
          hotkey="Enter"
          disabled={missing.length > 0}
          onAct={() => undefined}
        >
          {isStopped
            ? 'Stop it here'
            : missing.length > 0
              ? `${missing.length} ${missing.length === 1 ? 'photograph' : 'photographs'} to take`
              : 'Checked in, to make safe'}
        </ActButton>
      </div>
    </form>
  );
}

const withKey = (words: string, key: string): ReactNode => (
  <>
    {words} <KeyCap of={key} />
  </>
);

const tyreCare = (isAsked: boolean): string =>
  isAsked ? 'The next key keeps it so. Shown speed and braking go by it.' : 'Not as the type says: mend it first?';
