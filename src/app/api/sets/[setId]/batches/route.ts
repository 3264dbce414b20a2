import { moreBatchesAnswer } from '@/server/batchAnswer';

export const dynamic = 'force-dynamic';

export async function GET(request: Request, { params }: { params: Promise<{ setId: string }> }): Promise<Response> {
  return moreBatchesAnswer((await params).setId, new URL(request.url).searchParams.get('after'));
}
