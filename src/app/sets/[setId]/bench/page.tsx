import type { Metadata } from 'next';
import { BenchStage } from '@/features/bench/BenchStage';
import { DataFileTrouble } from '@/features/sets/DataFileTrouble';
import { stageBatch } from '@/server/deskFigures';
import { forPage } from '@/server/forPage';
import { benchRuns } from '@/server/runs';
import { batchAsked, type StageProps } from '@/server/stageProps';

export const metadata: Metadata = { title: 'Bench' };

export default async function Page(props: StageProps) {
  const served = await forPage(async () => {
    const [setId, batchId] = await batchAsked(props);
    return { batch: await stageBatch(setId, batchId), ...benchRuns(setId) };
  });
  return served.ok ? (
    <BenchStage served={served.data.batch} runs={served.data.runs} serverNow={served.data.serverNow} />
  ) : (
    <DataFileTrouble message={served.message} trouble={served.trouble} />
  );
}
