import { setLooksAnswer } from '@/server/views';

export const dynamic = 'force-dynamic';

/** The strips of some sets. */
export const GET = (request: Request): Promise<Response> => setLooksAnswer(request);
