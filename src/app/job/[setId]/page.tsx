import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { JobScreen } from '@/features/job/JobScreen';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { forPage } from '@/server/forPage';
import { jobView } from '@/server/job';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Job' };

export default async function Page({ params }: { params: Promise<{ setId: string }> }) {
  const { setId } = await params;
  const view = await forPage(() => jobView(setId));
  if (!view.ok) return <DataFileTrouble message={view.message} trouble={view.trouble} />;
  if (!view.data) notFound();
  return <JobScreen initial={view.data} />;
}
