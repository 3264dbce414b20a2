'use client';

import Delete from '@mui/icons-material/DeleteOutlined';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { useRef, useState } from 'react';
import { benchWindowSchema, WEEKDAYS, type BenchWindow } from '@/core/time/benchWindows';
import { complaintsByField } from '@/core/records/replaceAt';
import { TimeField } from '../controls/MomentField';
import { controlIn, focusSoon } from '../focusSoon';
import { ChoiceField } from './ChoiceField';
import styles from './BenchWindows.module.css';

interface BenchWindowsProps {
  windows: readonly BenchWindow[];
  onChange: (windows: BenchWindow[]) => void;
  /** What it means when there are none. */
  none: string;
}

const DAYS = WEEKDAYS.map((name, day) => ({ value: String(day), label: name }));
const EVENING = { fromMinute: 19 * 60, toMinute: 21 * 60 };

/** What a window is called among the others: its day, with a number where a day has two. */
function windowName(windows: readonly BenchWindow[], index: number): string {
  const { weekday } = windows[index]!;
  const before = windows.slice(0, index).filter((other) => other.weekday === weekday).length;
  return before === 0 ? WEEKDAYS[weekday]! : `${WEEKDAYS[weekday]} ${before + 1}`;
}

/** When the maker is at the bench, window by window. One that ends before it starts is told and not taken. */
export function BenchWindows({ windows, onChange, none }: BenchWindowsProps) {
  const box = useRef<HTMLDivElement>(null);
  /** A window as typed that does not do yet. */
  const [wrong, setWrong] = useState<{ index: number; window: BenchWindow; message: string } | null>(null);
  const change = (index: number, part: Partial<BenchWindow>): void => {
    const before = wrong?.index === index ? wrong.window : windows[index]!;
    const window = { ...before, ...part };
    const parsed = benchWindowSchema.safeParse(window);
    if (!parsed.success) {
      setWrong({ index, window, message: Object.values(complaintsByField(parsed.error))[0]! });
      return;
    }
    setWrong(null);
    onChange(windows.map((other, i) => (i === index ? window : other)));
  };
  const add = (): void => {
    onChange([...windows, { weekday: Math.min(6, (windows.at(-1)?.weekday ?? -1) + 1), ...EVENING }]);
    focusSoon(() => controlIn(box.current?.querySelectorAll('[data-window]')[windows.length] ?? null));
  };
  const remove = (index: number): void => {
    setWrong(null);
    onChange(windows.filter((_, i) => i !== index));
    focusSoon(() => box.current?.querySelector<HTMLElement>('[data-add]'));
  };
  return (
    <div ref={box} className={styles.windows}>
      {windows.length === 0 && <p className={styles.hint}>{none}</p>}
      {windows.map((kept, i) => {
        const window = wrong?.index === i ? wrong.window : kept;
        const name = windowName(windows, i);
        return (
          <div key={i} data-window className={styles.window}>
            <ChoiceField
              label={`${name}, day`}
              value={String(window.weekday)}
              choices={DAYS}
              onCommit={(value) => change(i, { weekday: Number(value) })}
            />
            <TimeField
              label={`${name}, from`}
              minutes={window.fromMinute}
              onCommit={(fromMinute) => change(i, { fromMinute })}
            />
            <TimeField
              label={`${name}, to`}
              minutes={window.toMinute}
              onCommit={(toMinute) => change(i, { toMinute })}
              error={wrong?.index === i ? wrong.message : undefined}
            />
            <IconButton aria-label={`Remove the window on ${name}`} onClick={() => remove(i)}>
              <Delete />
            </IconButton>
          </div>
        );
      })}
      <Button size="small" data-add onClick={add}>
        Add a window
      </Button>
    </div>
  );
}
