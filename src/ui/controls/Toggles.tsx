'use client';

import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';

interface TogglesProps<T extends string> {
  label: string;
  value: T;
  choices: readonly { value: T; label: string }[];
  onChoose: (value: T) => void;
  /** Says its name beside it. */
  shown?: boolean;
}

/** One of a few, side by side. */
export function Toggles<T extends string>({ label, value, choices, onChoose, shown = false }: TogglesProps<T>) {
  return (
    <span className="labelled">
      {shown && <span>{label}</span>}
      <ToggleButtonGroup
        exclusive
        size="small"
        value={value}
        aria-label={label}
        onChange={(_, next: T | null) => next !== null && onChoose(next)}
      >
        {choices.map((choice) => (
          <ToggleButton key={choice.value} value={choice.value}>
            {choice.label}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </span>
  );
}
