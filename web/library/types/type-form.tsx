import { MultiSelect, TextInput } from '@mantine/core';
import { IconAlertTriangle, IconInfoCircle } from '@tabler/icons-react';
import { mapTitle, TYPE_FACTS, type DisplayMap, type VehicleType } from '@decurio/core';
import { api } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { ChoiceField, NumberField, SpeedFormField, TextField, YesNoField } from '../../ui/fields.js';
import { Begun } from '../../drafts/begun.js';
import { FormFoot } from '../form-foot.js';
import { ApprovedFields } from './approved-fields.js';
import { FittedFields } from './fitted-fields.js';
import { useDocumentForm } from '../use-document-form.js';
import { LinesField } from '../lines-field.js';
import { CHEMISTRY_TITLES, FACT_TITLES, whatFollows } from './type-words.js';
import classes from '../library-form.module.css';

const DRIVES = [
  { value: 'gearedHub', label: 'geared hub' },
  { value: 'directHub', label: 'direct hub' },
  { value: 'mid', label: 'mid motor' },
] as const;
const PLACES = [
  { value: 'rear', label: 'rear' },
  { value: 'front', label: 'front' },
  { value: 'mid', label: 'middle' },
] as const;

/** A type being written, with what follows from it beside. */
export function TypeForm({ start, isNew }: { readonly start: VehicleType; readonly isNew: boolean }) {
  const { form, ...foot } = useDocumentForm('vehicleType', start);
  const maps = api.useLibraryQuery('displayMap').data ?? [];
  const type = form.values;
  return (
    <>
      <h1>{isNew ? 'New type' : `${start.title}, edited`}</h1>
      <Begun draft={foot.draft} />
      <div className={classes['form']}>
        <form
          className={classes['groups']}
          onSubmit={(event) => {
            event.preventDefault();
            foot.submit();
          }}
        >
          <section className={classes['group']}>
            <h2>Vehicle</h2>
            <div className={classes['row']}>
              <TextField form={form} path="name" label="Name" most={60} />
              <TextField form={form} path="title" label="Longer name" most={80} />
              {isNew && (
                <TextField
                  form={form}
                  path="id"
                  label="Id in files"
                  most={60}
                  hint="lower-case letters, digits, hyphens"
                />
              )}
              <ChoiceField
                form={form}
                path="kind"
                label="Kind"
                options={[
                  { value: 'bike', label: 'bike' },
                  { value: 'scooter', label: 'scooter' },
                ]}
              />
            </div>
          </section>
          <section className={classes['group']}>
            <h2>Motor and speed</h2>
            {type.motors.map((_, i) => (
              <div className={classes['row']} key={i}>
                <ChoiceField
                  form={form}
                  path={`motors.${i}.drive`}
                  label={type.motors.length > 1 ? `Motor ${i + 1}` : 'Motor'}
                  options={DRIVES}
                />
                <ChoiceField form={form} path={`motors.${i}.place`} label="Place" options={PLACES} />
                <YesNoField form={form} path={`motors.${i}.freewheels`} label="Freewheels: cannot brake" />
              </div>
            ))}
            <div className={classes['acts']}>
              {type.motors.length < 2 && (
                <ActButton
                  onAct={() => form.insertListItem('motors', { place: 'front', drive: 'gearedHub', freewheels: true })}
                >
                  A second motor
                </ActButton>
              )}
              {type.motors.length === 2 && (
                <ActButton onAct={() => form.removeListItem('motors', 1)}>One motor only</ActButton>
              )}
            </div>
            <div className={classes['row']}>
              <NumberField form={form} path="ratedPowerW" label="Rated power" unit="W" hint="as on its label" />
              <NumberField
                form={form}
                path="attainableKmh"
                label="Reaches uncapped"
                unit="km/h"
                hint="full pack, level"
              />
              <SpeedFormField
                form={form}
                path="speedLimit"
                label="Maker's limit"
                unit="km/h"
                hint="for its brakes or tyres"
              />
              <NumberField form={form} path="controllerLimitA" label="Controller's limit" unit="A" />
              <NumberField form={form} path="typeLimitA" label="Type allows" unit="A" />
              <NumberField form={form} path="controllerCutoffV" label="Controller cuts off" unit="V" orUnknown />
            </div>
          </section>
          <section className={classes['group']}>
            <h2>Pack and display</h2>
            <div className={classes['row']}>
              <ChoiceField
                form={form}
                path="pack.chemistry"
                label="Cells"
                options={Object.entries(CHEMISTRY_TITLES).map(([value, label]) => ({ value, label }))}
              />
              <NumberField form={form} path="pack.labelV" label="Label" unit="V" />
              <NumberField form={form} path="pack.cellsInSeries" label="Cells in series" />
              <NumberField form={form} path="pack.capacityAh" label="Capacity" unit="Ah" />
              <NumberField form={form} path="pack.protectionTripsV" label="Pack protects itself" unit="V" orUnknown />
              <TextInput
                label="Profile on the display"
                description="where several exist"
                maxLength={20}
                placeholder="not known"
                value={type.pack.profile ?? ''}
                onChange={(e) =>
                  form.setFieldValue('pack.profile', (e.target.value === '' ? null : e.target.value) as never)
                }
              />
              <SpanFields
                form={form}
                path="displayStandsV"
                from="from"
                to="to"
                label="Display stands"
                unit="V"
                start={{ from: 24, to: 60 }}
              />
              <SpanFields
                form={form}
                path="whPerKm"
                from="least"
                to="most"
                label="Uses"
                unit="Wh per km"
                start={{ least: 8, most: 14 }}
              />
            </div>
          </section>
          <section className={classes['group']}>
            <h2>Wheel and sensors</h2>
            <div className={classes['row']}>
              <TextField form={form} path="tyre.marking" label="Tyre marking" most={20} hint="47-559, or as printed" />
              <NumberField form={form} path="tyre.wheelInch" label="Wheel" unit="in" hint="a name, not a diameter" />
              <NumberField form={form} path="tyre.rolledMm" label="Rolled out" unit="mm a turn" orUnknown />
              <NumberField form={form} path="tyre.barFrom" label="Pressure from" unit="bar" orUnknown />
              <NumberField form={form} path="tyre.barTo" label="Pressure to" unit="bar" orUnknown />
              <NumberField form={form} path="wheelPulses" label="Wheel pulses" unit="a turn" />
              <NumberField form={form} path="pedalMagnets" label="Pedal magnets" orUnknown="no pedals" />
            </div>
          </section>
          <section className={classes['group']}>
            <h2>Fitted</h2>
            <div className={classes['row']}>
              <YesNoField form={form} path="throttleFitted" label="Throttle" />
              <YesNoField form={form} path="keySwitch" label="Key switch" />
              <YesNoField form={form} path="heavyCargo" label="Heavy to push" />
              <NumberField form={form} path="massKg" label="Weighs as it leaves" unit="kg" orUnknown />
              <div className={classes['wide']}>
                <MultiSelect
                  {...form.getInputProps('maps')}
                  label="Displays it may carry"
                  data={maps.map((entry) => ({ value: entry.id, label: mapTitle(entry.document as DisplayMap) }))}
                  searchable
                />
              </div>
            </div>
          </section>
          <FittedFields form={form} />
          <ApprovedFields form={form} maps={maps.map((entry) => entry.document as DisplayMap)} />
          <section className={classes['group']}>
            <h2>To be known at the stand</h2>
            <TextField form={form} path="cutPower" label="How to cut power, in one line" most={160} />
            <LinesField
              label="Cautions, one a line"
              value={type.cautions}
              onChange={(lines) => form.setFieldValue('cautions', lines as never)}
              most={200}
            />
            <MultiSelect
              {...form.getInputProps('needsSource')}
              label="Facts that still need a source"
              data={TYPE_FACTS.map((fact) => ({ value: fact, label: FACT_TITLES[fact] }))}
            />
          </section>
          <FormFoot
            {...foot}
            isNew={isNew}
            back={`/library/vehicleType/${isNew ? '' : start.id}`}
            says="Units begun before keep the version they were begun with."
          />
        </form>
        <aside className={classes['follows']} data-follows aria-label="What follows" aria-live="polite">
          <h2>What follows</h2>
          <ul>
            {whatFollows(type).map(({ kind, says }) => (
              <li key={says} data-kind={kind} className={classes['follow']}>
                {kind === 'care' ? (
                  <IconAlertTriangle size={18} aria-label="Look again" />
                ) : (
                  <IconInfoCircle size={18} aria-hidden="true" />
                )}
                <span>{says}</span>
              </li>
            ))}
          </ul>
        </aside>
      </div>
    </>
  );
}

interface SpanFieldsProps {
  readonly form: ReturnType<typeof useDocumentForm<'vehicleType'>>['form'];
  readonly path: 'displayStandsV' | 'whPerKm';
  readonly from: string;
  readonly to: string;
  readonly label: string;
  readonly unit: string;
  readonly start: object;
}

/** Two ends of a span that may not be known at all. */
function SpanFields({ form, path, from, to, label, unit, start }: SpanFieldsProps) {
  const isKnown = form.values[path] !== null;
  if (!isKnown)
    return <ActButton onAct={() => form.setFieldValue(path, start as never)}>{`${label}: not known`}</ActButton>;
  return (
    <>
      <NumberField form={form} path={`${path}.${from}`} label={`${label} from`} unit={unit} />
      <NumberField form={form} path={`${path}.${to}`} label={`${label} to`} unit={unit} />
    </>
  );
}
