import { whyAnswer } from '@/server/why';

export const dynamic = 'force-dynamic';

export const GET = (request: Request): Promise<Response> => whyAnswer(request);
