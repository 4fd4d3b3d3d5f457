import { Checkbox, TextInput } from '@mantine/core';
import { SKILLS, type CrewPerson, type Skill } from '@decurio/core';
import { HoursField } from './hours-field.js';
import { OnceList } from './once-list.js';
import classes from './people-page.module.css';

interface PersonCardProps {
  readonly person: CrewPerson;
  /** What is wrong with a field of it, once it was tried to keep it. */
  readonly slipIn: (field: string) => string | undefined;
  readonly onChange: (next: CrewPerson) => void;
  readonly onRemove: () => void;
}

export function PersonCard({ person, slipIn, onChange, onRemove }: PersonCardProps) {
  const change = (part: Partial<CrewPerson>) => onChange({ ...person, ...part });
  const toggle = (skill: Skill, has: boolean) =>
    change({ skills: has ? [...person.skills, skill] : person.skills.filter((each) => each !== skill) });
  return (
    <section className={classes['card']} aria-label={person.name || 'A new person'}>
      <div className={classes['row']}>
        <TextInput
          label="Name"
          value={person.name}
          error={slipIn('name')}
          maxLength={80}
          data-scan-guard="words"
          onChange={(e) => change({ name: e.target.value })}
        />
        <TextInput
          label="Signs in as"
          value={person.signInName ?? ''}
          error={slipIn('signInName')}
          maxLength={60}
          data-scan-guard="words"
          onChange={(e) => change({ signInName: e.target.value === '' ? null : e.target.value })}
        />
        <HoursField label="Hours of every week" value={person.hours} onChange={(hours) => change({ hours })} />
      </div>
      <div className={classes['row']}>
        <div className={classes['skills']} role="group" aria-label="What they may do">
          {(Object.keys(SKILLS) as Skill[]).map((skill) => (
            <Checkbox
              key={skill}
              label={SKILLS[skill]}
              checked={person.skills.includes(skill)}
              onChange={(e) => toggle(skill, e.target.checked)}
            />
          ))}
        </div>
        <OnceList label="Away" value={person.away} onChange={(away) => change({ away })} />
        <OnceList label="Also here" value={person.also} onChange={(also) => change({ also })} />
        <button type="button" className={classes['out']} onClick={onRemove}>
          Take out
        </button>
      </div>
    </section>
  );
}
