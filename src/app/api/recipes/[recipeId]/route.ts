import { recipeVersionsAnswer } from '@/server/recipeVersions';

export const dynamic = 'force-dynamic';

export async function GET(_request: Request, { params }: { params: Promise<{ recipeId: string }> }): Promise<Response> {
  return recipeVersionsAnswer((await params).recipeId);
}
