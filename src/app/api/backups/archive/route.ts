import { wholeArchive } from '@/server/backups';
import { answer, download } from '@/server/respond';

export const dynamic = 'force-dynamic';

/** Everything in one archive, to save. */
export const GET = (): Promise<Response> => answer(async () => download(await wholeArchive()));
