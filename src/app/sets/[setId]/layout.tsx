import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { wholeSetRequest } from '@/core/records/buildRequest';
import { DeskProvider } from '@/features/desk/DeskContext';
import { DeskFrame } from '@/features/desk/DeskFrame';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { forPage } from '@/server/forPage';
import { serverPlan } from '@/server/plans';
import { deskView } from '@/server/views';

export const dynamic = 'force-dynamic';

export default async function Layout({
  params,
  children,
}: {
  params: Promise<{ setId: string }>;
  children: ReactNode;
}) {
  const { setId } = await params;
  const view = forPage(() => deskView(setId));
  if (!view.ok) return <DataFileTrouble message={view.message} />;
  if (!view.data) notFound();
  const request = wholeSetRequest(view.data);
  return (
    <DeskProvider key={setId} initial={view.data} initialPlan={request && serverPlan(request)}>
      <DeskFrame>{children}</DeskFrame>
    </DeskProvider>
  );
}
