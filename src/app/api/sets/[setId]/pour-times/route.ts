import { pourTimesAnswer } from '@/server/calendar';

export const dynamic = 'force-dynamic';

export async function GET(_request: Request, { params }: { params: Promise<{ setId: string }> }): Promise<Response> {
  return pourTimesAnswer((await params).setId);
}
