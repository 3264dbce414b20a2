import { eventsAnswer } from '@/server/runs';

export async function POST(request: Request, { params }: { params: Promise<{ runId: string }> }): Promise<Response> {
  return eventsAnswer((await params).runId, request);
}
