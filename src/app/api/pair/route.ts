import { deviceCookie, pairDevice, pairRequestSchema } from '@/server/devices';
import { answer, ownJson } from '@/server/respond';

export const dynamic = 'force-dynamic';

/** Pairs the device that asks, with the code that the desk shows. */
export const POST = (request: Request): Promise<Response> =>
  answer(async () => {
    const token = await pairDevice(pairRequestSchema.parse(await ownJson(request)));
    return Response.json({ paired: true }, { headers: { 'set-cookie': deviceCookie(token) } });
  });
