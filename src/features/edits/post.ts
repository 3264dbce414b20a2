/** What came back of something that was sent. */
export interface Reply {
  status: number;
  body: unknown;
}

/**
 * Posts something large and tells how much of it has gone, 0 to 1. Rejects when there is no answer, or one that is no JSON.
 * `fetch` cannot tell of what goes out.
 */
export function postTelling(
  path: string,
  contentType: string,
  body: XMLHttpRequestBodyInit,
  progress: (share: number) => void,
): Promise<Reply> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', path);
    request.setRequestHeader('content-type', contentType);
    request.upload.onprogress = ({ loaded, total }) => progress(total > 0 ? loaded / total : 0);
    request.onerror = () => reject(new Error('No answer'));
    request.onload = () => {
      try {
        resolve({ status: request.status, body: JSON.parse(request.responseText) as unknown });
      } catch (error) {
        reject(error as Error);
      }
    };
    request.send(body);
  });
}
