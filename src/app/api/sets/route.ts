import { setCardsAnswer } from '@/server/views';

export const dynamic = 'force-dynamic';

/** Every set in short. */
export const GET = (): Promise<Response> => setCardsAnswer();
