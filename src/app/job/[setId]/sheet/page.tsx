import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { packStrip } from '@/core/picture/packedStrip';
import { DeliverySheet } from '@/features/job/DeliverySheet';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { stripOf } from '@/server/figures';
import { forPage } from '@/server/forPage';
import { jobView, jobWorkedOut } from '@/server/job';
import { deskView } from '@/server/views';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Delivery sheet' };

export default async function Page({ params }: { params: Promise<{ setId: string }> }) {
  const { setId } = await params;
  const served = await forPage(async () => {
    const [view, desk] = [jobView(setId), deskView(setId)];
    return (
      view &&
      desk && { view, drawn: desk.designs, work: await jobWorkedOut(setId), strip: packStrip(await stripOf(desk, {})) }
    );
  });
  if (!served.ok) return <DataFileTrouble message={served.message} trouble={served.trouble} />;
  if (!served.data) notFound();
  const { view, drawn, work, strip } = served.data;
  return <DeliverySheet view={view} designs={work.designs} drawn={drawn} strip={strip} />;
}
