import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { StockLabel } from '@/features/tint/StockLabel';
import { forPage } from '@/server/forPage';
import type { StageProps } from '@/server/stageProps';
import { deskView } from '@/server/views';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Label of a stock tint' };

export default async function Page({ params, searchParams }: StageProps) {
  const { setId } = await params;
  const { cups, pour } = await searchParams;
  const view = await forPage(() => deskView(setId));
  if (!view.ok) return <DataFileTrouble message={view.message} trouble={view.trouble} />;
  if (!view.data) notFound();
  const { set, shelf, now } = view.data;
  return (
    <StockLabel
      set={set}
      shelf={shelf}
      printedAt={now}
      cups={typeof cups === 'string' ? cups : ''}
      pour={typeof pour === 'string' ? Number(pour) : 0}
    />
  );
}
