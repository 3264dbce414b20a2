import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { GaugeSheet } from '@/features/match/GaugeSheet';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { forPage } from '@/server/forPage';
import { deskView } from '@/server/views';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Cutting gauges' };

export default async function Page({ params }: { params: Promise<{ setId: string; standardId: string }> }) {
  const { setId, standardId } = await params;
  const found = await forPage(() => deskView(setId));
  if (!found.ok) return <DataFileTrouble message={found.message} trouble={found.trouble} />;
  const standard = found.data?.set.data.standards?.find(({ id }) => id === standardId);
  if (!found.data || !standard) notFound();
  const { set, shelf } = found.data;
  return <GaugeSheet setId={setId} setName={set.data.name} standard={standard} units={shelf.settings.data.units} />;
}
