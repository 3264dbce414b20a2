import { effectAnswer } from '@/server/learnt';

export const dynamic = 'force-dynamic';

export const GET = effectAnswer;
