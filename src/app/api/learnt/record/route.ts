import { recordAnswer } from '@/server/learnt';

export const dynamic = 'force-dynamic';

export const GET = recordAnswer;
