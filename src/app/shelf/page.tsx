import type { Metadata } from 'next';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { ShelfScreen } from '@/features/shelf/ShelfScreen';
import { forPage } from '@/server/forPage';
import { shelfView } from '@/server/views';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Shelf' };

export default async function Page() {
  const view = await forPage(shelfView);
  return view.ok ? (
    <ShelfScreen initial={view.data} />
  ) : (
    <DataFileTrouble message={view.message} trouble={view.trouble} />
  );
}
