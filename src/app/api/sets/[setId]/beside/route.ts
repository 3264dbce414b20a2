import { setsBesideAnswer } from '@/server/views';

export const dynamic = 'force-dynamic';

/** The other sets of the workshop, for comparing their water. */
export async function GET(_request: Request, { params }: { params: Promise<{ setId: string }> }): Promise<Response> {
  return setsBesideAnswer((await params).setId);
}
