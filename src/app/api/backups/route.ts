import { backupsRequestSchema, copiesView, runBackups } from '@/server/backups';
import { answer, ownJson } from '@/server/respond';

export const dynamic = 'force-dynamic';

/** The copies of the data file. */
export const GET = (): Promise<Response> => answer(copiesView);

/** Saves a copy, puts one back, or says what becomes of a data file that was taken away. */
export const POST = (request: Request): Promise<Response> =>
  answer(async () => runBackups(backupsRequestSchema.parse(await ownJson(request))));
