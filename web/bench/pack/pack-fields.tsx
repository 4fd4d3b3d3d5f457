import { Radio } from '@mantine/core';
import { checkPack, type LabelledPack } from '@decurio/core';
import { Notice } from '../../ui/notice.js';
import { KeyCap } from '../../ui/keys/key-cap.js';
import classes from '../panel.module.css';

export type PackCondition = 'sound' | 'unsafe';

/** What the meter says of a pack, as soon as it is typed. */
export function PackSays({ pack, packV }: { readonly pack: LabelledPack; readonly packV: number }) {
  const check = checkPack(pack, packV);
  if (!check.ok) return null;
  const { verdict, holds, says } = check.value;
  return <Notice kind={verdict === 'fits' ? 'done' : holds ? 'stop' : 'care'} says={says} />;
}

/** How a pack looks and feels, asked of every pack that comes near a vehicle: nobody is taken to have looked. */
export function PackConditionField({
  value,
  onChange,
  error,
  soundKey = null,
}: {
  readonly value: PackCondition | null;
  readonly onChange: (condition: PackCondition) => void;
  readonly error?: string | undefined;
  /** The key by which it is said to be sound, where there is one. */
  readonly soundKey?: string | null;
}) {
  return (
    <Radio.Group
      label="The pack is"
      value={value}
      error={error}
      onChange={(chosen) => onChange(chosen === 'unsafe' ? 'unsafe' : 'sound')}
    >
      <div className={classes['choices']}>
        <Radio
          size="md"
          value="sound"
          label={<>dry, cool, sound, not swollen {soundKey !== null && <KeyCap of={soundKey} />}</>}
        />
        <Radio size="md" value="unsafe" label="swollen, wet, hot, hissing, dropped or damaged: stops here" />
      </div>
    </Radio.Group>
  );
}
