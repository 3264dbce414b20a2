import { calendarAnswer } from '@/server/calendar';

export const dynamic = 'force-dynamic';

export const GET = (): Promise<Response> => calendarAnswer();
