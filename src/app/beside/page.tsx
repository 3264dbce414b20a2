import type { Metadata } from 'next';
import { BesideScreen } from '@/features/figures/BesideScreen';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { forPage } from '@/server/forPage';
import { besideView } from '@/server/overTime';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Beside each other' };

export default async function Page({ searchParams }: { searchParams: Promise<{ a?: unknown; b?: unknown }> }) {
  const { a, b } = await searchParams;
  const text = (value: unknown): string | undefined => (typeof value === 'string' ? value : undefined);
  const view = await forPage(() => besideView({ a: text(a), b: text(b) }));
  return view.ok ? (
    <BesideScreen initial={view.data} />
  ) : (
    <DataFileTrouble message={view.message} trouble={view.trouble} />
  );
}
