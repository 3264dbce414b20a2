import { logAnswer } from '@/server/workshopLog';

export const dynamic = 'force-dynamic';

export const GET = logAnswer;
