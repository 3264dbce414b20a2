import { answerEdit } from '@/server/answerEdit';

/** The wide edit door: for what carries a scan. The same commands, with room for more. */
export const POST = (request: Request): Promise<Response> => answerEdit(request);
