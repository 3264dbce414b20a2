import type { Metadata } from 'next';
import { LogStage } from '@/features/log/LogStage';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { stageBatch } from '@/server/deskFigures';
import { forPage } from '@/server/forPage';
import { batchAsked, type StageProps } from '@/server/stageProps';

export const metadata: Metadata = { title: 'Log' };

export default async function Page(props: StageProps) {
  const served = await forPage(async () => stageBatch(...(await batchAsked(props))));
  return served.ok ? (
    <LogStage served={served.data} />
  ) : (
    <DataFileTrouble message={served.message} trouble={served.trouble} />
  );
}
