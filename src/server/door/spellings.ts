/**
 * Ways to write a path so that a careless router comes to it by another one, or a careless door takes it for another. None of them is
 * how the router itself would write it. For tests.
 */
export const spellings = (path: string): string[] => {
  const tail = path.slice(1);
  const [first = 's', ...rest] = tail;
  return [
    `/_next/static/../..${path}`,
    `/_next/static/%2e%2e/%2e%2e${path}`,
    `/_next/static/.%2e/%2E.${path}`,
    `/pair/..${path}`,
    `/api/x/..${path}`,
    `/.${path}`,
    `/%2e${path}`,
    `/${path}`,
    `${path}/`,
    `${path}/.`,
    `/\\${tail}`,
    `/x/..%2f${tail}`,
    `/x%5c..%5c${tail}`,
    `/%${first.charCodeAt(0).toString(16)}${rest.join('')}`,
    `${path}%00`,
    `/_next/static/%252e%252e/%252e%252e${path}`,
  ];
};
