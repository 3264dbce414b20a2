/** What Next gives the page of a stage. */
export interface StageProps {
  params: Promise<{ setId: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

/** The set of a page, and the batch that its address asks for. */
export async function batchAsked({
  params,
  searchParams,
}: StageProps): Promise<[setId: string, batchId: string | null]> {
  const { batch } = await searchParams;
  return [(await params).setId, typeof batch === 'string' ? batch : null];
}
