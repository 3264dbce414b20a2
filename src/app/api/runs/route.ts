import { beginAnswer, runsAnswer } from '@/server/runs';

export const dynamic = 'force-dynamic';

export const GET = (): Promise<Response> => runsAnswer();
export const POST = (request: Request): Promise<Response> => beginAnswer(request);
