import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { CupLabels } from '@/features/pour/CupLabels';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { batchPlan } from '@/server/batchPlan';
import { forPage } from '@/server/forPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Cup labels' };

export default async function Page({ params }: { params: Promise<{ setId: string; batchId: string }> }) {
  const { setId, batchId } = await params;
  const found = await forPage(() => batchPlan(setId, batchId));
  if (!found.ok) return <DataFileTrouble message={found.message} trouble={found.trouble} />;
  if (!found.data) notFound();
  return <CupLabels {...found.data} />;
}
