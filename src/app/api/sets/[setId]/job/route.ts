import { jobAnswer } from '@/server/job';

export const dynamic = 'force-dynamic';

export async function GET(_request: Request, { params }: { params: Promise<{ setId: string }> }): Promise<Response> {
  return jobAnswer((await params).setId);
}
