import { Checkbox, Select, TextInput } from '@mantine/core';
import { useRef, useState } from 'react';
import type { VehicleType } from '@decurio/core';
import { addUnitsRequest, type OrderPageView } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import { slipsIn } from '../../ui/slips.js';
import classes from './order-page.module.css';

/** Units scanned one after another as they come off the van; each stands in the order at once. */
export function Arrivals({ view }: { readonly view: OrderPageView }) {
  const types = (api.useLibraryQuery('vehicleType').data ?? []).map((entry) => entry.document as VehicleType);
  const [typeId, setTypeId] = useState<string | null>(view.expected[0]?.typeId ?? view.groups[0]?.typeId ?? null);
  const [serial, setSerial] = useState('');
  const [isSpare, setIsSpare] = useState(false);
  const [slip, setSlip] = useState<string | undefined>(undefined);
  const [arrived, setArrived] = useState<readonly string[]>([]);
  const [add, adding] = api.useAddUnitsMutation();
  const field = useRef<HTMLInputElement>(null);
  const coming = view.expected.filter((each) => each.typeId === typeId).reduce((sum, each) => sum + each.count, 0);
  const submit = async () => {
    const scanned = serial.trim();
    if (typeId === null) return setSlip('Choose the type first.');
    const mapId =
      view.expected.find((each) => each.typeId === typeId)?.mapId ??
      view.groups.find((group) => group.typeId === typeId)?.mapId ??
      null;
    const body = {
      id: crypto.randomUUID(),
      units: [{ serial: scanned, typeId, mapId, ...(isSpare ? { isSpare: true as const } : {}) }],
    };
    const found = slipsIn(addUnitsRequest, body);
    setSlip(found['units.0.serial']);
    if (Object.keys(found).length > 0) return;
    const answer = await add({ id: view.order.id, body });
    field.current?.select();
    if (!answer.data) return setSlip(asProblem(answer.error)?.message);
    setArrived([scanned, ...arrived]);
    setSerial('');
    field.current?.focus();
  };
  return (
    <section className={classes['card']} aria-label="Scan arrivals">
      <h2>Scan arrivals</h2>
      <form
        className={classes['scan']}
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <TextInput
          ref={field}
          label="Serial"
          value={serial}
          onChange={(e) => setSerial(e.target.value)}
          error={slip}
          maxLength={40}
          autoFocus
          autoComplete="off"
          spellCheck={false}
          description="scan one after another; Enter takes each in"
        />
        <Select
          label="Type"
          data={types.map((type) => ({ value: type.id, label: type.name }))}
          value={typeId}
          onChange={setTypeId}
          allowDeselect={false}
          searchable
          description={coming > 0 ? `${coming} to come` : 'none is expected any more'}
        />
        <Checkbox
          label="A spare display"
          description="on no vehicle: keyed, read back and kept ready"
          checked={isSpare}
          onChange={(event) => setIsSpare(event.currentTarget.checked)}
        />
        <ActButton type="submit" look="main" busy={adding.isLoading} onAct={() => undefined}>
          Take it in
        </ActButton>
      </form>
      {arrived.length > 0 && (
        <Notice kind="done" title={`${arrived.length} taken in`} says={arrived.slice(0, 12).join(', ')} />
      )}
    </section>
  );
}
