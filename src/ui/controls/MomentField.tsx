'use client';

import TextField from '@mui/material/TextField';
import { DatePicker } from '@mui/x-date-pickers/DatePicker';
import { DateTimePicker } from '@mui/x-date-pickers/DateTimePicker';
import { TimePicker } from '@mui/x-date-pickers/TimePicker';
import dayjs, { type Dayjs } from 'dayjs';
import utc from 'dayjs/plugin/utc';
import { useDeferredValue, useState, type FocusEvent, type KeyboardEvent } from 'react';
import { useCalendar } from './CalendarContext';

dayjs.extend(utc);

interface FieldProps {
  label: string;
  onCommit: (value: string) => void;
  error?: string | null | undefined;
  hint?: string | undefined;
  name?: string;
  disabled?: boolean;
}

/**
 * What is typed stands until it is a moment; then it is taken on Enter or when the whole field is left: day, month and year of it take
 * the focus one after the other. A half-typed one is told then, never guessed.
 */
function useTyped(
  value: string,
  pattern: string,
  { onCommit, error, hint, name }: FieldProps,
): {
  value: Dayjs | null;
  onChange: (next: Dayjs | null) => void;
  onAccept: (next: Dayjs | null, how: { source: string }) => void;
  slotProps: object;
} {
  const [typed, setTyped] = useState<{ from: string; moment: Dayjs | null } | null>(null);
  const [typing, setTyping] = useState(false);
  const kept = value === '' ? null : dayjs.utc(value, undefined);
  const current = typed && typed.from === value ? typed.moment : kept;
  const broken = current !== null && !current.isValid();
  const commit = (next: Dayjs | null): void => {
    if (next && !next.isValid()) return;
    const text = next?.format(pattern) ?? '';
    setTyped(null);
    if (text !== value) onCommit(text);
  };
  const message = broken && !typing ? 'Not all of it is typed yet' : (error ?? null);
  return {
    value: current,
    onChange: (moment) => setTyped({ from: value, moment }),
    // What is picked counts at once; a field “accepts” every digit that is typed.
    onAccept: (moment, { source }) => source === 'view' && commit(moment),
    slotProps: {
      textField: {
        name,
        variant: 'standard',
        fullWidth: true,
        error: message !== null,
        helperText: message ?? hint,
        onFocus: () => setTyping(true),
        onBlur: ({ currentTarget, relatedTarget }: FocusEvent) => {
          if (currentTarget.contains(relatedTarget)) return;
          setTyping(false);
          if (typed) commit(typed.moment);
        },
        onKeyDown: (event: KeyboardEvent) => {
          if (event.key === 'Enter' && typed) commit(typed.moment);
          if (event.key === 'Escape' && typed) {
            event.stopPropagation();
            setTyped(null);
          }
        },
        slotProps: { formHelperText: { role: message ? 'alert' : undefined } },
      },
    },
  };
}

/** A date and time on the wall clock, `2026-11-28T10:00`. Its picker is heavy: a new page is painted without it first. */
export function DateTimeField({ value, ...props }: FieldProps & { value: string }) {
  const { date, time, ampm } = useCalendar();
  const typed = useTyped(value, 'YYYY-MM-DDTHH:mm', props);
  const calm = useDeferredValue(true, false);
  if (!calm)
    return (
      <TextField
        variant="standard"
        fullWidth
        label={props.label}
        value={dayjs.utc(value).format(`${date} ${time}`)}
        disabled={props.disabled ?? false}
        helperText={props.error ?? props.hint}
        slotProps={{ htmlInput: { readOnly: true } }}
      />
    );
  return (
    <DateTimePicker
      {...typed}
      label={props.label}
      disabled={props.disabled ?? false}
      format={`${date} ${time}`}
      ampm={ampm}
      timezone="UTC"
    />
  );
}

/** A day, `2026-12-12`; an empty text for none. */
export function DateField({ value, ...props }: FieldProps & { value: string }) {
  const { date } = useCalendar();
  const typed = useTyped(value, 'YYYY-MM-DD', props);
  return <DatePicker {...typed} label={props.label} disabled={props.disabled ?? false} format={date} timezone="UTC" />;
}

const DAY = '2000-01-03';

/** A time of the day, in minutes after midnight. */
export function TimeField({
  minutes,
  onCommit,
  ...props
}: Omit<FieldProps, 'onCommit'> & { minutes: number; onCommit: (minutes: number) => void }) {
  const { time, ampm } = useCalendar();
  const pad = (value: number): string => String(value).padStart(2, '0');
  const value = `${DAY}T${pad(Math.floor(minutes / 60) % 24)}:${pad(minutes % 60)}`;
  const typed = useTyped(value, 'YYYY-MM-DDTHH:mm', {
    ...props,
    onCommit: (text) => onCommit(Number(text.slice(11, 13)) * 60 + Number(text.slice(14, 16))),
  });
  return (
    <TimePicker
      {...typed}
      label={props.label}
      disabled={props.disabled ?? false}
      format={time}
      ampm={ampm}
      timezone="UTC"
    />
  );
}
