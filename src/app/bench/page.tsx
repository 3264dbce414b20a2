import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { after } from 'next/server';
import { WorkshopBench } from '@/features/bench/WorkshopBench';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { startWorkingAhead } from '@/server/figuresAhead';
import { forPage } from '@/server/forPage';
import { workshopBench } from '@/server/runs';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Bench' };

export default async function Page() {
  const found = await forPage(workshopBench);
  after(startWorkingAhead);
  if (!found.ok) return <DataFileTrouble message={found.message} trouble={found.trouble} />;
  return <WorkshopBench view={found.data} onlyBench={(await headers()).get('x-rank') === 'bench'} />;
}
