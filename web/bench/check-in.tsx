import { Checkbox, NumberInput, Radio, Textarea, TextInput } from '@mantine/core';
import { useState } from 'react';
import { ValidationError } from 'yup';
import { checkPack, mapTitle } from '@decurio/core';
import { evidenceSchemas, type BenchView } from '@decurio/contract';
import type { ApiProblem } from '../state/api.js';
import { ActButton } from '../ui/act-button.js';
import { Notice } from '../ui/notice.js';
import type { Visit } from './use-visit.js';
import { WhichDisplay } from './which-display.js';
import classes from './panel.module.css';

type Typed = number | string;
const asNumber = (typed: Typed): number | null => (typed === '' ? null : Number(typed));

/** Step 1: which display it is, what the meter and odometer say, and the state it came in. */
export function CheckIn({ bench, visit }: { readonly bench: BenchView; readonly visit: Visit }) {
  const isToBeTold = bench.lookAlikes.length > 1 && visit.state?.displayTold === null;
  const [revision, setRevision] = useState((visit.state?.displayTold ?? null) !== null);
  const [odometer, setOdometer] = useState<Typed>('');
  const [volts, setVolts] = useState<Typed>('');
  const [pack, setPack] = useState<'sound' | 'unsafe'>('sound');
  const [tyre, setTyre] = useState<Typed>('');
  const [cables, setCables] = useState(false);
  const [clamp, setClamp] = useState(false);
  const [accessories, setAccessories] = useState('');
  const [damage, setDamage] = useState('');
  const [fields, setFields] = useState<Readonly<Record<string, string>>>({});
  const [busy, setBusy] = useState(false);
  const packV = asNumber(volts);
  const packCheck = packV === null ? null : checkPack(bench.type.pack, packV);

  const submit = async () => {
    const data = {
      revisionConfirmed: revision,
      odometerKm: asNumber(odometer),
      packV: packV ?? undefined,
      packCondition: pack,
      tyreBar: asNumber(tyre),
      cablesFree: cables,
      clampSound: clamp,
      accessories: accessories.trim(),
      damage: damage.trim(),
    };
    try {
      const valid = evidenceSchemas.checkedIn.validateSync(data, { abortEarly: false, strict: true });
      setFields({});
      setBusy(true);
      const problem: ApiProblem | null = await visit.act('checkedIn', { ...valid, revisionConfirmed: true });
      setBusy(false);
      if (problem?.fields) setFields(Object.fromEntries(Object.entries(problem.fields).map(([path, says]) => [path.replace(/^data\./, ''), says])));
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      setFields(Object.fromEntries(error.inner.map((e) => [e.path ?? '', e.message])));
    }
  };

  return (
    <form
      className={classes['panel']}
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <p className="cap">Check in</p>
      {isToBeTold ? (
        <>
          <WhichDisplay bench={bench} visit={visit} onTold={() => setRevision(true)} />
          {fields['revisionConfirmed'] !== undefined && <Notice kind="care" says="Say first which display it is." />}
        </>
      ) : (
        <Checkbox
          size="md"
          checked={revision}
          onChange={(e) => setRevision(e.target.checked)}
          label={`The display is a ${mapTitle(bench.map)}`}
          description={bench.map.tellBy}
          error={fields['revisionConfirmed']}
        />
      )}
      <div className={classes['row']}>
        <NumberInput label="Pack by meter" suffix=" V" value={volts} onChange={setVolts} decimalScale={2} hideControls autoFocus data-scan-guard error={fields['packV']} />
        <NumberInput label="Odometer" suffix=" km" value={odometer} onChange={setOdometer} decimalScale={1} hideControls data-scan-guard error={fields['odometerKm']} />
        <NumberInput label="Tyre" suffix=" bar" value={tyre} onChange={setTyre} decimalScale={1} hideControls data-scan-guard error={fields['tyreBar']} />
      </div>
      {packCheck && <Notice kind={packCheck.verdict === 'fits' ? 'done' : packCheck.verdict === 'tooHigh' ? 'stop' : 'care'} says={packCheck.says} />}
      <Radio.Group label="The pack is" value={pack} onChange={(value) => setPack(value === 'unsafe' ? 'unsafe' : 'sound')}>
        <div className={classes['choices']}>
          <Radio size="md" value="sound" label="dry, sound, not swollen" />
          <Radio size="md" value="unsafe" label="swollen, wet or damaged: stops here" />
        </div>
      </Radio.Group>
      <div className={classes['choices']}>
        <Checkbox size="md" checked={cables} onChange={(e) => setCables(e.target.checked)} label="No cable pinched" />
        <Checkbox size="md" checked={clamp} onChange={(e) => setClamp(e.target.checked)} label="Display clamp not overtightened" />
      </div>
      <div className={classes['row']}>
        <TextInput label="Came with" placeholder="charger, 2 keys" value={accessories} onChange={(e) => setAccessories(e.target.value)} maxLength={200} />
        <Textarea label="Damage" placeholder="none seen" value={damage} onChange={(e) => setDamage(e.target.value)} maxLength={1000} rows={1} autosize maxRows={3} />
      </div>
      <div className={classes['acts']}>
        <ActButton type="submit" look="main" hotkey="Enter" busy={busy} onAct={() => undefined}>
          Checked in, to key in
        </ActButton>
      </div>
    </form>
  );
}
