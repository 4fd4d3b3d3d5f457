import { NumberInput, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import { answerWords, HOUSE_CHOICES, type Choice, type Choices, type Speed } from '@decurio/core';
import { wishesRequest, type LineUnit, type OrderActed } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import { SpeedField } from '../../ui/fields.js';
import { useComeTo } from '../../ui/keys/use-come-to.js';
import { Notice } from '../../ui/notice.js';
import { slipsIn } from '../../ui/slips.js';
import classes from './order-page.module.css';

export interface OwnWishesProps {
  readonly unit: LineUnit;
  readonly onDone: (acted: OrderActed) => void;
  readonly onLeave: () => void;
}

/** One unit set otherwise than its order, with the reason: never beyond what the class allows. */
export function OwnWishes({ unit, onDone, onLeave }: OwnWishesProps) {
  const draft = useDraft(`otherwise.${unit.id}`, {
    choices: (unit.own?.choices ?? {}) as Partial<Choices>,
    limit: (unit.own?.limit ?? null) as Speed | null,
    why: unit.own?.why ?? '',
  });
  const { choices, limit, why } = draft.value;
  const setChoices = (next: Partial<Choices>) => draft.change({ choices: next });
  const [slips, setSlips] = useState<Readonly<Record<string, string>>>({});
  const [set, setting] = api.useSetWishesMutation();
  const send = async (wishes: { choices: Partial<Choices>; limit: Speed | null; why: string } | null) => {
    const body = { id: crypto.randomUUID(), wishes };
    const found = slipsIn(wishesRequest, body);
    setSlips(found);
    if (Object.keys(found).length > 0) return;
    const answer = await set({ unitId: unit.id, body });
    if (!answer.data) return;
    draft.forget();
    onDone(answer.data);
  };
  const left = HOUSE_CHOICES.filter(({ choice }) => !(choice in choices));
  const problem = asProblem(setting.error);
  const form = useComeTo<HTMLFormElement>(unit.id);
  return (
    <form
      ref={form}
      className={classes['stack']}
      aria-label={`${unit.serial} otherwise`}
      onSubmit={(event) => {
        event.preventDefault();
        void send({ choices, limit, why: why.trim() });
      }}
    >
      <h2>{unit.serial} otherwise than its order</h2>
      <Begun draft={draft} />
      <div className={classes['scan']}>
        <Select
          label="Which answer of the house rules"
          data={left.map(({ choice, asks }) => ({ value: choice, label: asks }))}
          value={null}
          onChange={(choice) =>
            choice &&
            setChoices({ ...choices, [choice]: HOUSE_CHOICES.find((school) => school.choice === choice)?.standard })
          }
          searchable
          placeholder="choose"
        />
        <SpeedField
          label="At most"
          value={limit}
          onChange={(limit) => draft.change({ limit })}
          unit="km/h"
          error={slips['wishes.limit.value']}
        />
      </div>
      {(Object.keys(choices) as Choice[]).map((choice) => {
        const school = HOUSE_CHOICES.find((each) => each.choice === choice);
        if (!school) return null;
        return school.answers ? (
          <Select
            key={choice}
            label={school.asks}
            data={school.answers.map((answer) => ({ value: String(answer.value), label: answer.title }))}
            value={String(choices[choice])}
            onChange={(value) => value && setChoices({ ...choices, [choice]: value })}
            allowDeselect={false}
          />
        ) : (
          <NumberInput
            key={choice}
            data-scan-guard
            label={`${school.asks}, ${school.number?.unit ?? ''}`}
            description={answerWords(choice, choices[choice] ?? 0)}
            value={choices[choice] as number}
            onChange={(value) => setChoices({ ...choices, [choice]: Number(value) })}
            hideControls
          />
        );
      })}
      <TextInput
        label="Why"
        value={why}
        onChange={(e) => draft.change({ why: e.target.value })}
        error={slips['wishes.why']}
        maxLength={300}
        placeholder="one rider wants it gentler"
      />
      {problem && <Notice kind="stop" says={problem.message} />}
      <div className={classes['acts']}>
        <ActButton type="submit" look="main" busy={setting.isLoading} onAct={() => undefined}>
          Set it otherwise
        </ActButton>
        <ActButton onAct={() => void send(null)}>As the order has it</ActButton>
        <ActButton onAct={onLeave}>Leave it</ActButton>
      </div>
    </form>
  );
}
