'use client';

import InputAdornment from '@mui/material/InputAdornment';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { hexColour } from '@/core/model/hexColour';
import styles from './ColourField.module.css';

interface ColourFieldProps {
  label: string;
  value: string;
  onCommit: (hex: string) => void;
  hint?: string | undefined;
}

/** A colour, typed as `#b8a888` or picked. */
export function ColourField({ label, value, onCommit, hint }: ColourFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [complaint, setComplaint] = useState<string | null>(null);
  const commit = (): void => {
    if (typed === null) return;
    const text = typed.trim().startsWith('#') ? typed.trim() : `#${typed.trim()}`;
    const read = hexColour.safeParse(text);
    if (!read.success) return setComplaint(read.error.issues[0]!.message);
    setComplaint(null);
    setTyped(null);
    if (text.toLowerCase() !== value) onCommit(text.toLowerCase());
  };
  return (
    <TextField
      label={label}
      value={typed ?? value}
      onChange={(event) => setTyped(event.target.value)}
      onFocus={(event) => event.target.select()}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') commit();
        if (event.key === 'Escape') {
          setTyped(null);
          setComplaint(null);
        }
      }}
      error={complaint !== null}
      helperText={complaint ?? hint}
      autoComplete="off"
      slotProps={{
        formHelperText: { role: complaint ? 'alert' : undefined },
        htmlInput: { spellCheck: false, 'data-untouched': typed === null || undefined },
        input: {
          startAdornment: (
            <InputAdornment position="start">
              <input
                type="color"
                className={styles.picker}
                aria-label={`${label}, picked`}
                value={value}
                onChange={(event) => onCommit(event.target.value)}
              />
            </InputAdornment>
          ),
        },
      }}
    />
  );
}
