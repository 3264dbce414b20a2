import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { LayoutSheet } from '@/features/match/LayoutSheet';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { forPage } from '@/server/forPage';
import { deskView } from '@/server/views';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Table layout' };

export default async function Page({ params }: { params: Promise<{ setId: string; tableId: string }> }) {
  const { setId, tableId } = await params;
  const found = await forPage(() => deskView(setId));
  if (!found.ok) return <DataFileTrouble message={found.message} trouble={found.trouble} />;
  const table = found.data?.set.data.tables?.find(({ id }) => id === tableId);
  if (!found.data || !table?.laid) notFound();
  return <LayoutSheet desk={found.data} table={table} laid={table.laid} />;
}
