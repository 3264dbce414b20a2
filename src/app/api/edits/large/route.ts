import { answerEdit } from '@/server/answerEdit';

/** The wide edit route: for what carries a scan. The same commands, with room for more. */
export const POST = (request: Request): Promise<Response> => answerEdit(request);
