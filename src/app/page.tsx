import { after } from 'next/server';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { SetsScreen } from '@/features/sets/SetsScreen';
import { startWorkingAhead } from '@/server/figuresAhead';
import { forPage } from '@/server/forPage';
import { setsView } from '@/server/views';

export const dynamic = 'force-dynamic';

export default async function Page() {
  const view = await forPage(setsView);
  after(startWorkingAhead);
  return view.ok ? (
    <SetsScreen initial={view.data} />
  ) : (
    <DataFileTrouble message={view.message} trouble={view.trouble} />
  );
}
