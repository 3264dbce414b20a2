import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { WeekSheet } from '@/features/cure/WeekSheet';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { weekSheet } from '@/server/calendar';
import { forPage } from '@/server/forPage';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'The week at the bench' };

export default async function Page({ params }: { params: Promise<{ setId: string }> }) {
  const { setId } = await params;
  const found = await forPage(() => weekSheet(setId));
  if (!found.ok) return <DataFileTrouble message={found.message} trouble={found.trouble} />;
  if (!found.data) notFound();
  return <WeekSheet {...found.data} />;
}
