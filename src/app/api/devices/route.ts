import { devicesRequestSchema, devicesView, runDevices } from '@/server/devices';
import { answer, ownJson } from '@/server/respond';

export const dynamic = 'force-dynamic';

/** Where other devices find Aguada, and which are paired. The front door gives this to the desk only. */
export const GET = (): Promise<Response> => answer(() => devicesView());

/** Makes a code for one device, or shuts one out. */
export const POST = (request: Request): Promise<Response> =>
  answer(async () => runDevices(devicesRequestSchema.parse(await ownJson(request))));
