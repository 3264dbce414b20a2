import type { Metadata } from 'next';
import { ShapeStage } from '@/features/shape/ShapeStage';

export const metadata: Metadata = { title: 'Shape' };

export default function Page() {
  return <ShapeStage />;
}
