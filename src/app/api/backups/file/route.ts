import { takeIn } from '@/server/backups';
import { answer } from '@/server/respond';

export const dynamic = 'force-dynamic';

/** Takes in an archive or a data file. */
export const POST = (request: Request): Promise<Response> => answer(() => takeIn(request));
