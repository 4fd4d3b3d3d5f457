import { TextInput } from '@mantine/core';
import { useState } from 'react';
import { weekFromWords, weekToWords, type WeekHours } from '@decurio/core';

interface HoursFieldProps {
  readonly label: string;
  readonly value: readonly WeekHours[];
  readonly onChange: (hours: readonly WeekHours[]) => void;
}

/** Hours of a week, typed as one writes them on a note. */
export function HoursField({ label, value, onChange }: HoursFieldProps) {
  const [words, setWords] = useState(() => weekToWords(value));
  const read = weekFromWords(words);
  return (
    <TextInput
      label={label}
      value={words}
      maxLength={400}
      data-scan-guard="words"
      placeholder="Mon-Fri 08:00-12:00 12:30-16:30; Sat 08:00-12:00"
      error={read.ok ? null : read.problem.message}
      onChange={(event) => {
        setWords(event.target.value);
        const next = weekFromWords(event.target.value);
        if (next.ok) onChange(next.value);
      }}
      onBlur={() => read.ok && setWords(weekToWords(read.value))}
    />
  );
}
