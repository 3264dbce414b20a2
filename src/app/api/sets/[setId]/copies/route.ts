import { copiesAnswer } from '@/server/copies';

export const dynamic = 'force-dynamic';

export async function GET(_request: Request, { params }: { params: Promise<{ setId: string }> }): Promise<Response> {
  return copiesAnswer((await params).setId);
}
