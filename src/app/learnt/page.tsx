import type { Metadata } from 'next';
import { LearntScreen } from '@/features/learnt/LearntScreen';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { forPage } from '@/server/forPage';
import { learntView } from '@/server/learnt';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Learnt' };

export default async function Page() {
  const view = await forPage(learntView);
  return view.ok ? (
    <LearntScreen initial={view.data} />
  ) : (
    <DataFileTrouble message={view.message} trouble={view.trouble} />
  );
}
