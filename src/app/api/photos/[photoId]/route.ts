import { photoAnswer } from '@/server/photos';
import { answer } from '@/server/respond';

export const dynamic = 'force-dynamic';

/** A photo, to be shown. */
export const GET = (_request: Request, { params }: { params: Promise<{ photoId: string }> }): Promise<Response> =>
  answer(async () => photoAnswer((await params).photoId));
