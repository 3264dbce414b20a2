import { answerEdit } from '@/server/answerEdit';

/** The edit route: one command in, the view that the screen shows out. */
export const POST = (request: Request): Promise<Response> => answerEdit(request);
