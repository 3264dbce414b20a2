import { exportFile } from '@/server/exportFile';

export const dynamic = 'force-dynamic';

export async function GET(
  _request: Request,
  { params }: { params: Promise<{ setId: string; batchId: string; file: string }> },
): Promise<Response> {
  return exportFile(await params);
}
