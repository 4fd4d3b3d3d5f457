import { Checkbox, Select, TextInput, Textarea } from '@mantine/core';
import dayjs from 'dayjs';
import type { ReactNode } from 'react';
import { checkedLine, type HouseRules, type RulePack } from '@decurio/core';
import { api } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { SpeedField } from '../../ui/fields.js';
import { Notice } from '../../ui/notice.js';
import { today } from '../../ui/house-zone.js';
import type { Promised } from './promise.js';
import classes from './order-form.module.css';

export interface PromiseFieldsProps {
  readonly value: Promised;
  readonly onChange: (value: Promised) => void;
  readonly slips: Readonly<Record<string, string>>;
  /** Fields that come first in the same row. */
  readonly first?: ReactNode;
}

/** Customer, place, class, limits, house rules, due time: what was promised, in the words of whoever took the call. */
export function PromiseFields({ value, onChange, slips, first }: PromiseFieldsProps) {
  const packs = (api.useLibraryQuery('rulePack').data ?? []).map((entry) => entry.document as RulePack);
  const rules = (api.useLibraryQuery('houseRules').data ?? []).map((entry) => entry.document as HouseRules);
  const { who } = useSession();
  const pack = packs.find((each) => each.id === value.rulePackId);
  const vehicleClass = pack?.classes.find((each) => each.id === value.classId);
  const unit = vehicleClass?.limit?.unit ?? 'km/h';
  const set = (part: Partial<Promised>) => onChange({ ...value, ...part });
  const setTerms = (part: Partial<Promised['terms']>) => set({ terms: { ...value.terms, ...part } });
  const chooseClass = (classId: string) => {
    const isPrivate = pack?.classes.find((each) => each.id === classId)?.regime === 'privateLand';
    set({
      classId,
      terms: {
        ...value.terms,
        privateLand: isPrivate
          ? (value.terms.privateLand ?? {
              acknowledgement: '',
              endsOn: dayjs().add(3, 'month').format('YYYY-MM-DD'),
              label: 'Private land only',
              isUncapped: false,
            })
          : null,
      },
    });
  };
  const chooseCustomer = (customer: string) => {
    const own = rules.find(
      (each) => each.customer !== null && each.customer.toLowerCase() === customer.trim().toLowerCase(),
    );
    set({ customer, ...(own ? { houseRulesId: own.id } : {}) });
  };
  return (
    <>
      <div className={classes['row']}>
        {first}
        <TextInput
          label="Customer"
          value={value.customer}
          onChange={(e) => chooseCustomer(e.target.value)}
          error={slips['customer']}
          maxLength={120}
        />
        <TextInput
          type="datetime-local"
          label="Ready by"
          value={value.dueAt}
          onChange={(e) => set({ dueAt: e.target.value })}
          error={slips['dueAt']}
        />
        <Select
          label="Place of use"
          data={packs.map((each) => ({ value: each.id, label: each.place }))}
          value={value.rulePackId || null}
          onChange={(id) =>
            id && onChange({ ...value, rulePackId: id, classId: '', terms: { ...value.terms, privateLand: null } })
          }
          error={slips['rulePackId'] && 'Choose the place.'}
          searchable
          allowDeselect={false}
          placeholder="choose"
        />
        <Select
          label="Class"
          data={(pack?.classes ?? []).map((each) => ({ value: each.id, label: each.title }))}
          value={value.classId || null}
          onChange={(id) => id && chooseClass(id)}
          error={slips['classId'] && 'Choose the class.'}
          description={vehicleClass ? `legal values ${checkedLine(vehicleClass.checked, today())}` : undefined}
          allowDeselect={false}
          disabled={!pack}
          placeholder={pack ? 'choose' : 'the place first'}
        />
        <Select
          label="House rules"
          data={rules.map((each) => ({
            value: each.id,
            label: each.customer === null ? each.name : `${each.name}, ${each.customer}`,
          }))}
          value={value.houseRulesId || null}
          onChange={(id) => id && set({ houseRulesId: id })}
          error={slips['houseRulesId'] && 'Choose the house rules.'}
          allowDeselect={false}
          placeholder="choose"
        />
        <SpeedField
          label="The site allows"
          value={value.terms.siteLimit}
          onChange={(siteLimit) => setTerms({ siteLimit })}
          unit={unit}
          error={slips['terms.siteLimit.value'] ?? slips['terms.siteLimit']}
        />
        <SpeedField
          label="The order asks at most"
          value={value.terms.orderLimit}
          onChange={(orderLimit) => setTerms({ orderLimit })}
          unit={unit}
          error={slips['terms.orderLimit.value'] ?? slips['terms.orderLimit']}
        />
        <Select
          label="Throttle"
          data={[
            { value: 'asClass', label: 'where class and type have one' },
            { value: 'none', label: 'none wanted' },
          ]}
          value={value.terms.throttle}
          onChange={(throttle) => throttle && setTerms({ throttle: throttle as 'asClass' | 'none' })}
          allowDeselect={false}
        />
      </div>
      <Textarea
        label="Notes for the bench"
        value={value.notes}
        onChange={(e) => set({ notes: e.target.value })}
        error={slips['notes']}
        rows={2}
        maxLength={1000}
      />
      {value.terms.privateLand && (
        <PrivateLandFields
          value={value}
          onChange={onChange}
          slips={slips}
          mayAuthorise={who !== null && who.role !== 'technician'}
          name={who?.name ?? ''}
        />
      )}
    </>
  );
}

function PrivateLandFields({
  value,
  onChange,
  slips,
  mayAuthorise,
  name,
}: PromiseFieldsProps & { readonly mayAuthorise: boolean; readonly name: string }) {
  const land = value.terms.privateLand;
  if (!land) return null;
  const set = (part: Partial<typeof land>) =>
    onChange({ ...value, terms: { ...value.terms, privateLand: { ...land, ...part } } });
  return (
    <fieldset className={classes['land']}>
      <legend>Private land only</legend>
      <Notice
        kind={mayAuthorise ? 'care' : 'stop'}
        title={mayAuthorise ? `On your written authority, ${name}` : 'A lead takes this order in'}
        says="These vehicles never go on a public road, tests included. Motor and pack wear more. Label, end date and the customer's acknowledgement stand on every screen and paper."
      />
      <div className={classes['row']}>
        <TextInput
          label="Customer's acknowledgement"
          description="number of the letter, where it is filed"
          value={land.acknowledgement}
          onChange={(e) => set({ acknowledgement: e.target.value })}
          error={slips['terms.privateLand.acknowledgement']}
          maxLength={200}
        />
        <TextInput
          type="date"
          label="Ends on"
          value={land.endsOn}
          onChange={(e) => set({ endsOn: e.target.value })}
          error={slips['terms.privateLand.endsOn']}
        />
        <TextInput
          label="Label on the vehicle"
          value={land.label}
          onChange={(e) => set({ label: e.target.value })}
          error={slips['terms.privateLand.label']}
          maxLength={80}
        />
        <Checkbox
          label="Without any cap"
          description="only where the house rules allow it"
          checked={land.isUncapped}
          onChange={(e) => set({ isUncapped: e.target.checked })}
        />
      </div>
    </fieldset>
  );
}
