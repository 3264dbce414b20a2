'use client';

import TextField from '@mui/material/TextField';

interface ChoiceFieldProps<T extends string> {
  label: string;
  value: T;
  choices: readonly { value: T; label: string }[];
  onCommit: (value: T) => void;
  error?: string | null | undefined;
  hint?: string | undefined;
}

/** A choice among a few; the browser's own list, so that it works by thumb and by key. */
export function ChoiceField<T extends string>({ label, value, choices, onCommit, error, hint }: ChoiceFieldProps<T>) {
  return (
    <TextField
      select
      label={label}
      value={value}
      onChange={(event) => onCommit(event.target.value as T)}
      error={Boolean(error)}
      helperText={error ?? hint}
      slotProps={{ select: { native: true } }}
    >
      {choices.map((choice) => (
        <option key={choice.value} value={choice.value}>
          {choice.label}
        </option>
      ))}
    </TextField>
  );
}
