import { shortened } from '@decurio/core';
import { Textarea } from '@mantine/core';
import { useState } from 'react';

export interface LinesFieldProps {
  readonly label: string;
  readonly value: readonly string[];
  readonly onChange: (lines: readonly string[]) => void;
  readonly most: number;
}

/** A list of sentences, one a line. */
export function LinesField({ label, value, onChange, most }: LinesFieldProps) {
  const [text, setText] = useState(value.join('\n'));
  const tooLong = text.split('\n').find((line) => line.length > most);
  return (
    <Textarea
      label={label}
      value={text}
      rows={Math.max(2, text.split('\n').length)}
      error={tooLong === undefined ? undefined : `"${shortened(tooLong, 20)}…" is longer than ${most} letters.`}
      onChange={(event) => {
        setText(event.target.value);
        onChange(
          event.target.value
            .split('\n')
            .map((line) => line.trim())
            .filter((line) => line !== ''),
        );
      }}
    />
  );
}
