import type { Metadata } from 'next';
import { FiguresScreen } from '@/features/figures/FiguresScreen';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { forPage } from '@/server/forPage';
import { overTimeView } from '@/server/overTime';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Figures' };

export default async function Page() {
  const view = await forPage(overTimeView);
  return view.ok ? (
    <FiguresScreen initial={view.data} />
  ) : (
    <DataFileTrouble message={view.message} trouble={view.trouble} />
  );
}
