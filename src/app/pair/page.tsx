import type { Metadata } from 'next';
import { PairScreen } from '@/features/devices/PairScreen';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Pair this device' };

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, unknown>> }) {
  const { code } = await searchParams;
  return <PairScreen firstCode={typeof code === 'string' && /^\d{6}$/.test(code) ? code : ''} />;
}
