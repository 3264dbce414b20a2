import type { Metadata } from 'next';
import { readableAsk } from '@/core/records/workshopLog';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { LogScreen } from '@/features/workshopLog/LogScreen';
import { forPage } from '@/server/forPage';
import { logView } from '@/server/workshopLog';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Log' };

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  const ask = readableAsk(new URLSearchParams(await searchParams));
  const view = await forPage(() => logView(ask));
  return view.ok ? (
    <LogScreen initial={view.data} asked={ask} />
  ) : (
    <DataFileTrouble message={view.message} trouble={view.trouble} />
  );
}
