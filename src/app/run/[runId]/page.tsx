import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { notFound } from 'next/navigation';
import { RunScreen } from '@/features/bench/run/RunScreen';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { forPage } from '@/server/forPage';
import { runView } from '@/server/runs';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Run' };

export default async function Page({ params }: { params: Promise<{ runId: string }> }) {
  const { runId } = await params;
  const found = await forPage(() => runView(runId));
  if (!found.ok) return <DataFileTrouble message={found.message} trouble={found.trouble} />;
  if (!found.data) notFound();
  return <RunScreen view={found.data} onlyBench={(await headers()).get('x-rank') === 'bench'} />;
}
