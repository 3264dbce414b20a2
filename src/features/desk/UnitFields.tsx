'use client';

import { WEEKDAYS } from '@/core/time/benchWindows';
import type { Settings } from '@/core/records/recordSchemas';
import type { Path } from '@/core/records/replaceAt';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { WordField } from '@/ui/measure/WordField';

const same = <T extends string>(values: readonly T[]): { value: T; label: T }[] =>
  values.map((value) => ({ value, label: value }));

const DATE_ORDERS = [
  { value: 'day first', label: '28/11/2026' },
  { value: 'month first', label: '11/28/2026' },
  { value: 'year first', label: '2026-11-28' },
] as const;

interface UnitFieldsProps {
  settings: Settings;
  put: (path: Path, value: unknown) => void;
  validate: (path: Path) => (value: string) => string | null;
}

/** Units, money, dates: how the maker measures and writes. */
export function UnitFields({ settings, put, validate }: UnitFieldsProps) {
  const { units } = settings;
  return (
    <>
      <ChoiceField
        label="Lengths in"
        value={units.length}
        choices={same(['mm', 'in'] as const)}
        onCommit={(value) => put(['units', 'length'], value)}
      />
      <ChoiceField
        label="Masses in"
        value={units.mass}
        choices={same(['g', 'oz'] as const)}
        onCommit={(value) => put(['units', 'mass'], value)}
      />
      <ChoiceField
        label="Volumes in"
        value={units.volume}
        choices={same(['ml', 'fl oz'] as const)}
        onCommit={(value) => put(['units', 'volume'], value)}
      />
      <ChoiceField
        label="Temperatures in"
        value={units.temperature}
        choices={same(['°C', '°F'] as const)}
        onCommit={(value) => put(['units', 'temperature'], value)}
      />
      <WordField
        label="Currency sign"
        value={units.currency}
        validate={validate(['units', 'currency'])}
        onCommit={(value) => put(['units', 'currency'], value)}
      />
      <ChoiceField
        label="Dates"
        value={settings.calendar.dateOrder}
        choices={DATE_ORDERS}
        onCommit={(value) => put(['calendar', 'dateOrder'], value)}
      />
      <ChoiceField
        label="Clock"
        value={settings.calendar.clock}
        choices={same(['24 h', '12 h'] as const)}
        onCommit={(value) => put(['calendar', 'clock'], value)}
      />
      <ChoiceField
        label="The week starts on"
        value={String(settings.calendar.firstDay)}
        choices={WEEKDAYS.map((label, day) => ({ value: String(day), label }))}
        onCommit={(value) => put(['calendar', 'firstDay'], Number(value))}
      />
    </>
  );
}
