import { stockAnswer } from '@/server/stock';

export const dynamic = 'force-dynamic';

export function GET(): Promise<Response> {
  return stockAnswer();
}
