import { NumberInput, Select, TextInput } from '@mantine/core';
import type { Shop, ShopPlace } from '@decurio/core';
import { AmountInput } from '../../ui/amount-input.js';
import { HoursField } from './hours-field.js';
import { OnceList } from './once-list.js';
import classes from './people-page.module.css';

const PLACES = [
  { value: 'yard', label: 'in the yard' },
  { value: 'roller', label: 'on the roller' },
];

interface ShopFieldsProps {
  readonly shop: Shop;
  readonly slipIn: (field: string) => string | undefined;
  readonly onChange: (next: Shop) => void;
}

/** How many stands there are, how many units one weaves, and where kinds of vehicles are proved. */
export function ShopFields({ shop, slipIn, onChange }: ShopFieldsProps) {
  const change = (part: Partial<Shop>) => onChange({ ...shop, ...part });
  const figure = (label: string, of: 'stands' | 'weave' | 'otherKindS' | 'otherPlaceS', most: number) => (
    <NumberInput
      label={label}
      value={shop[of]}
      error={slipIn(of)}
      min={0}
      max={most}
      allowDecimal={false}
      clampBehavior="none"
      hideControls
      onChange={(value) => change({ [of]: typeof value === 'number' ? value : 0 })}
    />
  );
  return (
    <section className={classes['card']} aria-label="Stands">
      <div className={classes['row']}>
        {figure('Stands', 'stands', 200)}
        {figure('Units one person has in hand', 'weave', 6)}
        {figure('To another display, s', 'otherKindS', 3600)}
        {figure('To another place, s', 'otherPlaceS', 3600)}
        <Select
          label="Bikes are proved"
          data={PLACES}
          value={shop.proveAt.bike}
          allowDeselect={false}
          onChange={(at) => change({ proveAt: { ...shop.proveAt, bike: at as 'yard' | 'roller' } })}
        />
        <Select
          label="Scooters are proved"
          data={PLACES}
          value={shop.proveAt.scooter}
          allowDeselect={false}
          onChange={(at) => change({ proveAt: { ...shop.proveAt, scooter: at as 'yard' | 'roller' } })}
        />
      </div>
    </section>
  );
}

interface PlaceCardProps {
  readonly place: ShopPlace;
  readonly slipIn: (field: string) => string | undefined;
  readonly onChange: (next: ShopPlace) => void;
  readonly onRemove: () => void;
}

export function PlaceCard({ place, slipIn, onChange, onRemove }: PlaceCardProps) {
  const change = (part: Partial<ShopPlace>) => onChange({ ...place, ...part });
  return (
    <section className={classes['card']} aria-label={place.name || 'A new place'}>
      <div className={`${classes['row']} ${classes['tight']}`}>
        <TextInput
          label="Name"
          value={place.name}
          error={slipIn('name')}
          maxLength={60}
          data-scan-guard="words"
          onChange={(e) => change({ name: e.target.value })}
        />
        <HoursField label="Open" value={place.hours} onChange={(hours) => change({ hours })} />
        {place.kind === 'post' && (
          <>
            <AmountInput
              label="Gives, A"
              value={place.chargeA}
              error={slipIn('chargeA')}
              clampBehavior="none"
              onChange={(chargeA) => change({ chargeA })}
            />
            <PacksField value={place.packsV} onChange={(packsV) => change({ packsV })} />
          </>
        )}
        <OnceList label="Shut" value={place.shut} onChange={(shut) => change({ shut })} />
        <OnceList label="Also open" value={place.also} onChange={(also) => change({ also })} />
        <button type="button" className={classes['out']} onClick={onRemove}>
          Take out
        </button>
      </div>
    </section>
  );
}

/** Labels of packs, V, set apart by spaces; empty for all. */
function PacksField({
  value,
  onChange,
}: {
  readonly value: readonly number[] | null;
  readonly onChange: (packs: readonly number[] | null) => void;
}) {
  return (
    <TextInput
      label="Packs, V"
      placeholder="all"
      defaultValue={value?.join(' ') ?? ''}
      maxLength={60}
      data-scan-guard="words"
      onBlur={(event) => {
        const volts = event.target.value
          .split(/[\s,;]+/)
          .map(Number)
          .filter((v) => v > 0);
        onChange(volts.length === 0 ? null : volts);
      }}
    />
  );
}
