import { wholeArchive } from '@/server/copies';
import { answer, download } from '@/server/respond';

export const dynamic = 'force-dynamic';

/** Everything in one archive, to save. */
export const GET = (): Promise<Response> => answer(async () => download(await wholeArchive()));
