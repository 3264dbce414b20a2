import { spentAnswer } from '@/server/stock';

export const dynamic = 'force-dynamic';

export async function GET(_request: Request, { params }: { params: Promise<{ setId: string }> }): Promise<Response> {
  return spentAnswer((await params).setId);
}
