import { lotsAnswer } from '@/server/stock';

export const dynamic = 'force-dynamic';

/** Every lot, the emptied ones too. */
export const GET = (): Promise<Response> => lotsAnswer();
