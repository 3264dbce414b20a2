import { findable } from '@/db/findable';
import { withData } from './data';
import { answer } from './respond';

/** All that can be found in the workshop: the browser makes its index of it. */
export const findableAnswer = (): Promise<Response> => answer(() => withData(findable));
