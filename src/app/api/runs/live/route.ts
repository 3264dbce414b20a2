import { watchReadings } from '@/server/readings';
import { liveAnswer } from '@/server/runs';

export const dynamic = 'force-dynamic';

export function GET(request: Request): Promise<Response> {
  watchReadings();
  return liveAnswer(request);
}
