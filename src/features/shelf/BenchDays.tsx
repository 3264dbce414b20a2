'use client';

import Delete from '@mui/icons-material/DeleteOutlined';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { useRef, useState } from 'react';
import { benchExceptionSchema, type BenchException } from '@/core/time/benchWindows';
import { complaintsByField } from '@/core/records/replaceAt';
import { DateField, TimeField } from '@/ui/controls/MomentField';
import { Tick } from '@/ui/controls/Tick';
import { controlIn, focusSoon } from '@/ui/focusSoon';
import styles from './ShelfScreen.module.css';

interface BenchDaysProps {
  exceptions: readonly BenchException[];
  /** The day that a new one starts with. */
  today: string;
  onChange: (exceptions: BenchException[]) => void;
}

const ALL_DAY = { fromMinute: 9 * 60, toMinute: 18 * 60 };

/** Days on which the week's windows do not hold: a free day, a holiday. */
export function BenchDays({ exceptions, today, onChange }: BenchDaysProps) {
  const box = useRef<HTMLDivElement>(null);
  const [wrong, setWrong] = useState<{ index: number; day: BenchException; message: string } | null>(null);
  const change = (index: number, part: Partial<BenchException>): void => {
    const before = wrong?.index === index ? wrong.day : exceptions[index]!;
    const day = { ...before, ...part };
    const parsed = benchExceptionSchema.safeParse(day);
    if (!parsed.success) {
      setWrong({ index, day, message: Object.values(complaintsByField(parsed.error))[0]! });
      return;
    }
    setWrong(null);
    onChange(exceptions.map((other, i) => (i === index ? day : other)));
  };
  return (
    <div ref={box}>
      {exceptions.map((kept, i) => {
        const day = wrong?.index === i ? wrong.day : kept;
        const [span] = day.spans;
        return (
          <div key={i} className={styles.exception} data-day>
            <DateField label="Day" value={day.date} onCommit={(date) => date !== '' && change(i, { date })} />
            <Tick
              label="at the bench"
              checked={day.spans.length > 0}
              onChange={(on) => change(i, { spans: on ? [ALL_DAY] : [] })}
            />
            {span && (
              <>
                <TimeField
                  label={`${day.date}, from`}
                  minutes={span.fromMinute}
                  onCommit={(fromMinute) => change(i, { spans: [{ ...span, fromMinute }, ...day.spans.slice(1)] })}
                />
                <TimeField
                  label={`${day.date}, to`}
                  minutes={span.toMinute}
                  onCommit={(toMinute) => change(i, { spans: [{ ...span, toMinute }, ...day.spans.slice(1)] })}
                  error={wrong?.index === i ? wrong.message : undefined}
                />
              </>
            )}
            <IconButton
              aria-label={`Remove ${day.date}`}
              onClick={() => {
                setWrong(null);
                onChange(exceptions.filter((_, other) => other !== i));
                focusSoon(() => box.current?.querySelector<HTMLElement>('[data-add]'));
              }}
            >
              <Delete />
            </IconButton>
          </div>
        );
      })}
      <Button
        size="small"
        data-add
        onClick={() => {
          onChange([...exceptions, { date: today, spans: [] }]);
          focusSoon(() => controlIn(box.current?.querySelectorAll('[data-day]')[exceptions.length] ?? null));
        }}
      >
        Add a day
      </Button>
    </div>
  );
}
