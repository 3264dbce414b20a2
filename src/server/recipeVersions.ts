import { getDocument } from '@/db/documents';
import { recipeVersions } from '@/db/recipeVersions';
import { withData } from './data';
import { answer, RequestError } from './respond';

/** What a recipe has been, newest first. */
export const recipeVersionsAnswer = (recipeId: string): Promise<Response> =>
  answer(() =>
    withData((db) => {
      if (!getDocument(db, 'recipe', recipeId)) throw new RequestError(404, 'This recipe is no longer on the shelf.');
      return recipeVersions(db, recipeId);
    }),
  );
