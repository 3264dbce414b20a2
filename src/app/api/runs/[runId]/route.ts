import { runAnswer } from '@/server/runs';

export const dynamic = 'force-dynamic';

export async function GET(_request: Request, { params }: { params: Promise<{ runId: string }> }): Promise<Response> {
  return runAnswer((await params).runId);
}
