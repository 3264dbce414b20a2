import { lotHistoryAnswer } from '@/server/stock';

export const dynamic = 'force-dynamic';

export async function GET(_request: Request, { params }: { params: Promise<{ lotId: string }> }): Promise<Response> {
  return lotHistoryAnswer((await params).lotId);
}
