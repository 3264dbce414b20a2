import type { Metadata } from 'next';
import { LogStage } from '@/features/log/LogStage';

export const metadata: Metadata = { title: 'Log' };

export default function Page() {
  return <LogStage />;
}
