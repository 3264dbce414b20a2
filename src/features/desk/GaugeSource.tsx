'use client';

import Button from '@mui/material/Button';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { editText } from '@/core/units/formatMeasure';
import { SimulatedGauge } from '@/devices/levelGauge';
import { READING_SOURCE_CHOICES, readingSourceSchema, type ReadingSource } from '@/ui/controls/readingSources';
import { Toggles } from '@/ui/controls/Toggles';
import { useKept } from '@/ui/keptDraft';
import { useUnits } from '@/ui/measure/UnitsContext';
import { listenLive } from './liveStream';
import styles from './GaugeSource.module.css';

/** To a hundredth: a gauge is good to ± 0.05 mm. */
const DECIMALS = 2;

/** Fields that a gauge can fill: those of levels, in the order of the bench. */
const FIELD = 'input[data-gauge]';

/** Puts a reading into a field as if it were typed there, and goes on to the next. */
function enter(field: HTMLInputElement, text: string): void {
  field.focus();
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(field, text);
  field.dispatchEvent(new Event('input', { bubbles: true }));
  setTimeout(() => field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true })), 0);
}

/** Where levels come from: typed, a simulated gauge, or a gauge that sends lines. Each reading fills the next field of the bench order. */
export function GaugeSource({ within }: { within: RefObject<HTMLElement | null> }) {
  const units = useUnits();
  const [source, setSource] = useKept<ReadingSource>('aguada.gauge', 'by hand', readingSourceSchema);
  const [gauge] = useState(() => new SimulatedGauge(5));
  const [trouble, setTrouble] = useState<string | null>(null);
  const last = useRef<HTMLInputElement | null>(null);
  const take = useRef<(mm: number | null) => void>(() => undefined);
  useEffect(() => {
    take.current = (mm) => {
      const fields = [...(within.current?.querySelectorAll<HTMLInputElement>(FIELD) ?? [])];
      const here = document.activeElement instanceof HTMLInputElement && fields.includes(document.activeElement);
      const known = last.current && fields.includes(last.current) ? last.current : null;
      const field = here
        ? (document.activeElement as HTMLInputElement)
        : (known ?? (fields.length === 1 ? fields[0] : fields.find(({ value }) => value === '')));
      if (!field) return setTrouble('Every level is measured. Go to the field that is to be measured again.');
      setTrouble(null);
      const read = mm ?? gauge.read(Number(field.dataset['gauge']), field.getAttribute('aria-label') ?? '', 0).mm;
      enter(field, editText(read, 'length', units, units.length === 'mm' ? DECIMALS : undefined));
    };
  });
  useEffect(() => {
    if (source === 'by hand') return;
    const focused = ({ target }: FocusEvent): void => {
      if (target instanceof HTMLInputElement && target.matches(FIELD)) last.current = target;
    };
    const space = (event: KeyboardEvent): void => {
      if (event.key !== ' ' || !(event.target instanceof HTMLElement) || !event.target.matches(FIELD)) return;
      event.preventDefault();
      if (source === 'simulated') take.current(null);
    };
    document.addEventListener('focusin', focused);
    document.addEventListener('keydown', space);
    const stop =
      source === 'bench'
        ? listenLive({
            message: (message) => {
              if (message.type === 'reading' && message.reading.device === 'gauge') take.current(message.reading.mm);
              else if (message.type === 'trouble') setTrouble(message.trouble);
            },
            opened: () => undefined,
            lost: () => undefined,
          })
        : () => undefined;
    return () => {
      document.removeEventListener('focusin', focused);
      document.removeEventListener('keydown', space);
      stop();
    };
  }, [source]);
  return (
    <div className={styles.gauge}>
      <span className="labelled">
        <span>Level gauge</span>
        <Toggles label="Where levels come from" value={source} choices={READING_SOURCE_CHOICES} onChoose={setSource} />
      </span>
      {source === 'simulated' && (
        <Button size="small" onClick={() => take.current(null)}>
          Read it into the next field
        </Button>
      )}
      {source !== 'by hand' && (
        <small>
          {source === 'simulated'
            ? 'Space reads it while a level field has the focus. ± 0.05 mm.'
            : 'Each reading goes into the level field with the focus, then on to the next. ± 0.05 mm.'}
        </small>
      )}
      {trouble && (
        <small role="alert" className={styles.wrong}>
          {trouble}
        </small>
      )}
    </div>
  );
}
