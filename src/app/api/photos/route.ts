import { takePhoto } from '@/server/photos';
import { answer } from '@/server/respond';

export const dynamic = 'force-dynamic';

/** Keeps a photo. */
export const POST = (request: Request): Promise<Response> => answer(() => takePhoto(request));
