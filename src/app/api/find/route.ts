import { findableAnswer } from '@/server/find';

export const dynamic = 'force-dynamic';

export const GET = (): Promise<Response> => findableAnswer();
