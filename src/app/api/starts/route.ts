import { startsAnswer } from '@/server/starts';

export const dynamic = 'force-dynamic';

export const GET = (): Promise<Response> => startsAnswer();
