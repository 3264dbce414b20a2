import type { Metadata } from 'next';
import { PourStage } from '@/features/pour/PourStage';

export const metadata: Metadata = { title: 'Pour' };

export default function Page() {
  return <PourStage />;
}
