'use client';

import InputAdornment from '@mui/material/InputAdornment';
import TextField from '@mui/material/TextField';
import { useState, type KeyboardEvent } from 'react';
import { editText, preferredUnit } from '@/core/units/formatMeasure';
import { stepped } from '@/core/units/steps';
import { parseMeasure } from '@/core/units/parseMeasure';
import type { Quantity } from '@/core/units/quantities';
import { selectAll, sendForm } from './fieldKeys';
import { useOwnWords, useUnits } from './UnitsContext';

interface MeasureFieldProps {
  label: string;
  /** In base units: mm, ml, g, °C, min, fraction. */
  value: number;
  quantity: Quantity;
  onCommit: (value: number) => void;
  /** Says what is wrong with a value that reads well, or nothing. */
  validate?: ((value: number) => string | null) | undefined;
  error?: string | null | undefined;
  hint?: string | undefined;
  /** What one press of an arrow key adds, in base units. */
  step?: number;
  disabled?: boolean;
  name?: string;
  /** Steps by the arrow keys are taken on leaving, so that Esc puts back what was there. */
  commitsOnLeaving?: boolean;
  /** Digits shown after the point; two (three for inches) by default. */
  decimals?: number;
  /** Its label is read out, not shown: in a table, where the head says what it is. */
  bare?: boolean;
  /** The level that a gauge is to find here, mm: its readings go into this field. */
  gaugeMm?: number;
}

/**
 * A field for one measure. Takes units, fractions and arithmetic (`4 3/4"`, `3*160+2`); commits on Enter or on leaving,
 * keeps what was typed and says what is wrong when it does not read, and steps with the up and down keys.
 */
export function MeasureField({
  label,
  value,
  quantity,
  onCommit,
  validate,
  error,
  hint,
  step = 1,
  disabled = false,
  name,
  commitsOnLeaving = false,
  decimals,
  bare = false,
  gaugeMm,
}: MeasureFieldProps) {
  const units = useUnits();
  const own = useOwnWords();
  const unit = preferredUnit(quantity, units);
  const sign = quantity === 'duration' ? '' : unit.symbol;
  const shown = editText(value, quantity, units, decimals);
  const [typed, setTyped] = useState<string | null>(null);
  const [complaint, setComplaint] = useState<string | null>(null);

  const offer = (next: number): boolean => {
    const problem = validate?.(next) ?? null;
    setComplaint(problem);
    if (problem !== null) return false;
    setTyped(null);
    if (Math.abs(next - value) > 1e-9) onCommit(next);
    return true;
  };
  /** Takes what was typed; false when it does not read or is refused. */
  const commit = (): boolean => {
    if (typed === null) return true;
    if (typed.trim() === shown) {
      setTyped(null);
      setComplaint(null);
      return true;
    }
    const parsed = parseMeasure(typed, quantity, unit);
    if (parsed.ok) return offer(parsed.value);
    setComplaint(parsed.message);
    return false;
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key === 'Enter') {
      // The value is taken first; the form round it must not be sent with the old one.
      event.preventDefault();
      if (commit()) sendForm(event.target);
    }
    if (event.key === 'Escape' && (typed !== null || complaint !== null)) {
      event.stopPropagation();
      setTyped(null);
      setComplaint(null);
    }
    if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      event.preventDefault();
      const presses = (event.key === 'ArrowUp' ? 1 : -1) * (event.shiftKey ? 5 : 1);
      if (commitsOnLeaving) setTyped(editText(stepFrom(inField(), presses), quantity, units, decimals));
      else offer(stepFrom(value, presses));
    }
  };
  const stepFrom = (from: number, presses: number): number => stepped(from, presses, step, quantity, units);
  /** What stands in the field, typed or kept. */
  const inField = (): number => {
    const parsed = typed === null ? null : parseMeasure(typed, quantity, unit);
    return parsed?.ok ? parsed.value : value;
  };
  const message = complaint ?? error ?? null;
  return (
    <TextField
      label={bare ? undefined : label}
      value={typed ?? shown}
      onChange={(event) => setTyped(event.target.value)}
      onFocus={(event) => selectAll(event.target)}
      onBlur={commit}
      onKeyDown={onKeyDown}
      error={message !== null}
      helperText={(message ?? hint) && own((message ?? hint)!)}
      disabled={disabled}
      name={name}
      autoComplete="off"
      slotProps={{
        input: { endAdornment: sign ? <InputAdornment position="end">{sign}</InputAdornment> : undefined },
        htmlInput: {
          inputMode: 'text',
          spellCheck: false,
          'aria-label': sign ? `${label}, ${sign}` : bare ? label : undefined,
          'data-untouched': typed === null || undefined,
          'data-gauge': gaugeMm,
        },
        formHelperText: { role: message ? 'alert' : undefined },
      }}
    />
  );
}
