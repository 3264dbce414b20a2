import type { Metadata } from 'next';
import { CureStage } from '@/features/cure/CureStage';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { stageBatch } from '@/server/deskFigures';
import { forPage } from '@/server/forPage';
import { batchAsked, type StageProps } from '@/server/stageProps';

export const metadata: Metadata = { title: 'Cure' };

export default async function Page(props: StageProps) {
  const served = await forPage(async () => stageBatch(...(await batchAsked(props))));
  return served.ok ? (
    <CureStage served={served.data} />
  ) : (
    <DataFileTrouble message={served.message} trouble={served.trouble} />
  );
}
