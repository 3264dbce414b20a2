import { logFileAnswer } from '@/server/workshopLog';

export const dynamic = 'force-dynamic';

/** `log.csv` or `log.json`: all of the log that is asked for. */
export async function GET(request: Request, { params }: { params: Promise<{ file: string }> }): Promise<Response> {
  return logFileAnswer(request, (await params).file);
}
