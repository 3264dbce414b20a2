import { batchAnswer } from '@/server/batchAnswer';

export const dynamic = 'force-dynamic';

export async function GET(_request: Request, { params }: { params: Promise<{ batchId: string }> }): Promise<Response> {
  return batchAnswer((await params).batchId);
}
