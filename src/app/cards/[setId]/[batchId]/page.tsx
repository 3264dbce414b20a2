import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { PourCard } from '@/features/pour/PourCard';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { batchPlan } from '@/server/batchPlan';
import { forPage } from '@/server/forPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Pour card' };

export default async function Page({ params }: { params: Promise<{ setId: string; batchId: string }> }) {
  const { setId, batchId } = await params;
  const found = await forPage(() => batchPlan(setId, batchId));
  if (!found.ok) return <DataFileTrouble message={found.message} trouble={found.trouble} />;
  if (!found.data) notFound();
  return <PourCard {...found.data} />;
}
