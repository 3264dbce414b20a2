import { latestAnswer, readingsAnswer } from '@/server/readings';

export const dynamic = 'force-dynamic';

export const GET = (): Promise<Response> => latestAnswer();
export const POST = (request: Request): Promise<Response> => readingsAnswer(request);
