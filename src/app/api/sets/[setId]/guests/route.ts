import { guestsAnswer } from '@/server/batchAnswer';

export const dynamic = 'force-dynamic';

export async function GET(_request: Request, { params }: { params: Promise<{ setId: string }> }): Promise<Response> {
  return guestsAnswer((await params).setId);
}
