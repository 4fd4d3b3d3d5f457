import { Checkbox, MultiSelect } from '@mantine/core';
import { FITTINGS, type PackedClass, type SpeedUnit } from '@decurio/core';
import { ChoiceField, NumberField, SpeedFormField, TextField, YesNoField } from '../../ui/fields.js';
import { LinesField } from '../lines-field.js';
import { RowsField } from '../rows-field.js';
import type { DocumentForm } from '../use-document-form.js';
import {
  ASKED_TITLES,
  BASIS_TITLES,
  BOUND_TITLES,
  FROM_TITLES,
  KEPT_TITLES,
  KIND_TITLES,
  LEAVE_TITLES,
  PAPER_TITLES,
  REGIME_TITLES,
  THROTTLE_TITLES,
} from './class-words.js';
import fields from '../../ui/fields.module.css';
import classes from '../library-form.module.css';

const options = (titles: Readonly<Record<string, string>>) =>
  Object.entries(titles).map(([value, label]) => ({ value, label }));

export interface ClassFieldsProps {
  readonly form: DocumentForm<'rulePack'>['form'];
  readonly at: string;
  readonly each: PackedClass;
}

interface PartProps extends ClassFieldsProps {
  readonly unit: SpeedUnit;
}

/** Everything a class says, in the order in which a lead reads it with the statute beside it. */
export function ClassFields(props: ClassFieldsProps) {
  const { form, at, each } = props;
  const part = { ...props, unit: each.limit?.unit ?? ('km/h' as const) };
  return (
    <>
      <SpeedAndPower {...part} />
      <Throttle {...part} />
      <OnTheVehicle {...part} />
      <Rider {...part} />
      <PapersAndLabel {...part} />
      <TextField form={form} path={`${at}.note`} label="Note" most={800} rows={2} />
      <RowsField
        title="Values that nobody is sure of"
        add="Another question"
        rows={each.doubts}
        onAdd={() => form.insertListItem(`${at}.doubts`, { about: '', question: '' })}
        onRemove={(i) => form.removeListItem(`${at}.doubts`, i)}
      >
        {(i) => (
          <>
            <TextField form={form} path={`${at}.doubts.${i}.about`} label="About" most={60} />
            <TextField form={form} path={`${at}.doubts.${i}.question`} label="Question for the authority" most={300} />
          </>
        )}
      </RowsField>
      <div className={classes['row']}>
        <TextField form={form} path={`${at}.ask`} label="Whom to ask" most={160} />
      </div>
      <TextField form={form} path={`${at}.source`} label="Source of these values" most={400} rows={2} />
    </>
  );
}

function SpeedAndPower({ form, at, each, unit }: PartProps) {
  return (
    <>
      <div className={classes['row']}>
        <TextField form={form} path={`${at}.title`} label="As read on papers" most={80} />
        <TextField form={form} path={`${at}.id`} label="Id in order files" most={60} />
        <ChoiceField form={form} path={`${at}.kind`} label="For" options={options(KIND_TITLES)} />
        <ChoiceField form={form} path={`${at}.regime`} label="What may be done" options={options(REGIME_TITLES)} />
        <SpeedFormField
          form={form}
          path={`${at}.limit`}
          label="Assist ends at"
          unit={unit}
          hint="in the statute's own unit"
        />
        <ChoiceField form={form} path={`${at}.limitIs`} label="Which means" options={options(BOUND_TITLES)} />
        <NumberField
          form={form}
          path={`${at}.tolerance`}
          label="Tolerance the rule states"
          hint="as a share: 0.1 for ten per cent"
        />
        <YesNoField form={form} path={`${at}.endSpeedMeasured`} label="End speed is measured" />
      </div>
      <RowsField
        title="Limits of power"
        add="A limit of power"
        rows={each.power}
        onAdd={() => form.insertListItem(`${at}.power`, { watts: '', basis: 'rated', is: 'atMost' })}
        onRemove={(i) => form.removeListItem(`${at}.power`, i)}
      >
        {(i) => (
          <>
            <NumberField form={form} path={`${at}.power.${i}.watts`} label="Power limit" unit="W" />
            <ChoiceField
              form={form}
              path={`${at}.power.${i}.basis`}
              label="Power counts as"
              options={options(BASIS_TITLES)}
            />
            <ChoiceField form={form} path={`${at}.power.${i}.is`} label="Which means" options={options(BOUND_TITLES)} />
          </>
        )}
      </RowsField>
      <div className={classes['row']}>
        <NumberField
          form={form}
          path={`${at}.assistFactor`}
          label="Assist, times the rider's power"
          orUnknown="not asked"
        />
        <YesNoField form={form} path={`${at}.taper`} label="Assist grows less towards its end" />
      </div>
    </>
  );
}

function Throttle({ form, at, each, unit }: PartProps) {
  return (
    <div className={classes['row']}>
      <ChoiceField form={form} path={`${at}.throttle`} label="Throttle" options={options(THROTTLE_TITLES)} />
      {each.throttle === 'toSpeed' && (
        <SpeedFormField form={form} path={`${at}.throttleTo`} label="Throttle ends at" unit={unit} />
      )}
      {each.throttle !== 'none' && (
        <>
          <ChoiceField form={form} path={`${at}.throttleFrom`} label="Throttle drives" options={options(FROM_TITLES)} />
          <ChoiceField form={form} path={`${at}.cruise`} label="Cruise" options={options(LEAVE_TITLES)} />
        </>
      )}
      <SpeedFormField form={form} path={`${at}.startAid`} label="Start-up aid to" unit="km/h" />
      <ChoiceField form={form} path={`${at}.walk`} label="Walk assist" options={options(LEAVE_TITLES)} />
      {each.walk !== 'forbidden' && (
        <SpeedFormField form={form} path={`${at}.walkTo`} label="Walk assist to" unit={unit} />
      )}
      <SpeedFormField form={form} path={`${at}.walkingMode`} label="Slow mode wanted, to" unit="km/h" />
      <YesNoField form={form} path={`${at}.cutOnBrake`} label="Each brake lever ends drive" />
      <Checkbox
        checked={each.cutOnPedalStop !== null}
        onChange={(event) =>
          form.setFieldValue(`${at}.cutOnPedalStop`, (event.currentTarget.checked ? { withinS: null } : null) as never)
        }
        label="Drive ends when the pedals stop"
        className={fields['yesNo'] ?? ''}
      />
      {each.cutOnPedalStop !== null && (
        <NumberField form={form} path={`${at}.cutOnPedalStop.withinS`} label="Within" unit="s" orUnknown="not named" />
      )}
      <YesNoField form={form} path={`${at}.settingsOutOfReach`} label="Settings out of reach" />
      <YesNoField form={form} path={`${at}.changeMakesMaker`} label="Altering may make one its maker" />
      <TextField form={form} path={`${at}.mayChange`} label="Who may change settings" most={160} />
    </div>
  );
}

function OnTheVehicle({ form, at, each }: PartProps) {
  return (
    <div className={classes['row']}>
      <NumberField form={form} path={`${at}.brakes`} label="Brakes of their own" hint="0 where none are named" />
      <NumberField form={form} path={`${at}.greatestMassKg`} label="At most" unit="kg" orUnknown="not asked" />
      <div className={classes['wide']}>
        <MultiSelect
          label="What it has to carry"
          data={options(FITTINGS)}
          value={[...each.fittings]}
          onChange={(list) => form.setFieldValue(`${at}.fittings`, list as never)}
        />
      </div>
    </div>
  );
}

const RIDER = [
  ['helmet', 'Helmet'],
  ['licence', 'Licence'],
  ['plate', 'Number plate'],
  ['insurance', 'Insurance'],
] as const;

function Rider({ form, at, each }: PartProps) {
  return (
    <>
      <div className={classes['row']}>
        <NumberField form={form} path={`${at}.leastAge`} label="Least age" unit="years" orUnknown="not asked" />
        {RIDER.map(([field, label]) => (
          <ChoiceField key={field} form={form} path={`${at}.${field}`} label={label} options={options(ASKED_TITLES)} />
        ))}
        <TextField form={form} path={`${at}.riderNote`} label="What else a rider must know" most={300} />
      </div>
      <RowsField
        title="By place and hour"
        add="A place or an hour"
        rows={each.places}
        onAdd={() =>
          form.insertListItem(`${at}.places`, { where: '', limit: { value: 6, unit: 'km/h' }, keptBy: 'rider' })
        }
        onRemove={(i) => form.removeListItem(`${at}.places`, i)}
      >
        {(i) => (
          <>
            <TextField form={form} path={`${at}.places.${i}.where`} label="Where or when" most={120} />
            <SpeedFormField form={form} path={`${at}.places.${i}.limit`} label="At most" unit="km/h" />
            <ChoiceField form={form} path={`${at}.places.${i}.keptBy`} label="Kept by" options={options(KEPT_TITLES)} />
          </>
        )}
      </RowsField>
    </>
  );
}

function PapersAndLabel({ form, at, each }: PartProps) {
  return (
    <>
      <RowsField
        title="Papers to be seen"
        add="A paper to be seen"
        rows={each.certificates}
        onAdd={() => form.insertListItem(`${at}.certificates`, { of: 'battery', standard: '' })}
        onRemove={(i) => form.removeListItem(`${at}.certificates`, i)}
      >
        {(i) => (
          <>
            <ChoiceField
              form={form}
              path={`${at}.certificates.${i}.of`}
              label="Paper on"
              options={options(PAPER_TITLES)}
            />
            <TextField form={form} path={`${at}.certificates.${i}.standard`} label="Standard it names" most={80} />
          </>
        )}
      </RowsField>
      <LinesField
        label="What the label on the vehicle says, one a line"
        value={each.labelFields}
        onChange={(lines) => form.setFieldValue(`${at}.labelFields`, lines as never)}
        most={60}
      />
      <div className={classes['row']}>
        <NumberField
          form={form}
          path={`${at}.labelLetterMm`}
          label="Letters at least"
          unit="mm"
          orUnknown="not asked"
        />
      </div>
    </>
  );
}
