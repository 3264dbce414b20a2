import { setArchive } from '@/server/backups';
import { answer, download } from '@/server/respond';

export const dynamic = 'force-dynamic';

/** One set in an archive, to hand on. */
export const GET = (_request: Request, { params }: { params: Promise<{ setId: string }> }): Promise<Response> =>
  answer(async () => download(await setArchive((await params).setId)));
