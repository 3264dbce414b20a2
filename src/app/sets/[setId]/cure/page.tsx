import type { Metadata } from 'next';
import { CureStage, type ServedCure } from '@/features/cure/CureStage';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { stageCalendar } from '@/server/calendar';
import { stageBatch } from '@/server/deskFigures';
import { forPage } from '@/server/forPage';
import { batchAsked, type StageProps } from '@/server/stageProps';

export const metadata: Metadata = { title: 'Cure' };

export default async function Page(props: StageProps) {
  const { show } = await props.searchParams;
  const served = await forPage(async (): Promise<ServedCure> => {
    const [setId, batchId] = await batchAsked(props);
    return show === 'batch'
      ? { batch: await stageBatch(setId, batchId), calendar: null }
      : { batch: null, calendar: await stageCalendar(setId) };
  });
  return served.ok ? (
    <CureStage served={served.data} />
  ) : (
    <DataFileTrouble message={served.message} trouble={served.trouble} />
  );
}
