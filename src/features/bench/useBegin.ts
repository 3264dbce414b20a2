import { useRouter } from 'next/navigation';
import { useState } from 'react';

/** Begins a run of a batch, or leads to the one that it is in; practice goes so many times faster than real. */
export function useBegin(): {
  busy: boolean;
  trouble: string | null;
  begin: (batchId: string, practiceSpeed?: number) => Promise<void>;
} {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const begin = async (batchId: string, practiceSpeed?: number): Promise<void> => {
    setBusy(true);
    setTrouble(null);
    const seed = Math.floor(performance.now() * 10) % 100_000;
    try {
      const response = await fetch('/api/runs', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ batchId, ...(practiceSpeed && { practice: { speed: practiceSpeed, seed } }) }),
      });
      const body = (await response.json()) as { id?: string; message?: string };
      if (response.ok && body.id) return router.push(`/run/${body.id}`);
      setTrouble(body.message ?? 'The run could not be begun.');
    } catch {
      setTrouble('Aguada does not answer. Try again.');
    }
    setBusy(false);
  };
  return { busy, trouble, begin };
}
