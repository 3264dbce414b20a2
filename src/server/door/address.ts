/** Where a request goes: the path that is judged and served, and what follows it. */
export interface Address {
  path: string;
  /** With its question mark; empty when there is none. */
  search: string;
}

/** What a path of Aguada is written with: nothing in it needs decoding, so that nobody can decode it into another one. */
const SEGMENT = /^[A-Za-z0-9_~.-]+$/;

/**
 * The address in the first line of a request; null when it is not written as the router would write it itself. Dot segments, empty
 * ones, and whatever is encoded or needs to be are not put right but refused: a path that has only one spelling cannot mean one
 * thing to the door and another to the router.
 */
export function addressOf(target: string): Address | null {
  const cut = target.indexOf('?');
  const path = cut < 0 ? target : target.slice(0, cut);
  const search = cut < 0 ? '' : target.slice(cut);
  const plain =
    path === '/' ||
    (path.startsWith('/') &&
      path
        .slice(1)
        .split('/')
        .every((segment) => SEGMENT.test(segment) && !/^\.+$/.test(segment)));
  return plain && decodes(search) ? { path, search } : null;
}

function decodes(text: string): boolean {
  try {
    return !text.includes('#') && !decodeURIComponent(text).includes('\0');
  } catch {
    return false;
  }
}
