import { notFound } from 'next/navigation';
import { after } from 'next/server';
import type { ReactNode } from 'react';
import { DeskProvider } from '@/features/desk/DeskContext';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { deskFigures } from '@/server/deskFigures';
import { startWorkingAhead } from '@/server/figuresAhead';
import { forPage } from '@/server/forPage';
import { deskView } from '@/server/views';
import { Desk } from './Desk';

export const dynamic = 'force-dynamic';

export default async function Layout({
  params,
  children,
}: {
  params: Promise<{ setId: string }>;
  children: ReactNode;
}) {
  const { setId } = await params;
  const view = await forPage(() => deskView(setId));
  if (!view.ok) return <DataFileTrouble message={view.message} trouble={view.trouble} />;
  if (!view.data) notFound();
  after(startWorkingAhead);
  return (
    <DeskProvider key={setId} initial={view.data} {...await deskFigures(view.data)}>
      <Desk>{children}</Desk>
    </DeskProvider>
  );
}
