'use client';

import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider';
import { AdapterDayjs } from '@mui/x-date-pickers/AdapterDayjs';
import dayjs from 'dayjs';
import customParseFormat from 'dayjs/plugin/customParseFormat';
import updateLocale from 'dayjs/plugin/updateLocale';
import utc from 'dayjs/plugin/utc';
import { createContext, use, useEffect, type ReactNode } from 'react';
import { DEFAULT_CALENDAR, type Calendar } from '@/core/records/recordSchemas';

dayjs.extend(customParseFormat);
dayjs.extend(updateLocale);
// Wall times have no zone: as times of UTC they are never moved by one.
dayjs.extend(utc);

const CalendarContext = createContext<Calendar>(DEFAULT_CALENDAR);

/** How the maker writes dates and times, for every field below it. */
export function CalendarProvider({ calendar, children }: { calendar: Calendar; children: ReactNode }) {
  useEffect(() => {
    dayjs.updateLocale('en', { weekStart: (calendar.firstDay + 1) % 7 });
  }, [calendar.firstDay]);
  return (
    <CalendarContext value={calendar}>
      <LocalizationProvider dateAdapter={AdapterDayjs} adapterLocale="en" dateLibInstance={dayjs.utc}>
        {children}
      </LocalizationProvider>
    </CalendarContext>
  );
}

const DATES: Record<Calendar['dateOrder'], string> = {
  'day first': 'DD/MM/YYYY',
  'month first': 'MM/DD/YYYY',
  'year first': 'YYYY-MM-DD',
};
const TIMES: Record<Calendar['clock'], string> = { '24 h': 'HH:mm', '12 h': 'hh:mm A' };

/** The patterns that fields are written in. */
export function useCalendar(): { date: string; time: string; ampm: boolean } {
  const { dateOrder, clock } = use(CalendarContext);
  return { date: DATES[dateOrder], time: TIMES[clock], ampm: clock === '12 h' };
}
