import { batchStockAnswer } from '@/server/stock';

export const dynamic = 'force-dynamic';

export async function GET(_request: Request, { params }: { params: Promise<{ batchId: string }> }): Promise<Response> {
  return batchStockAnswer((await params).batchId);
}
