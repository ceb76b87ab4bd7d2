/** Less is sent before anybody could see that it goes on. */
const worthTelling = 200_000;

/** Sends as fetch does, and tells how much of a large body has left. fetch cannot tell, so this is the older request.
 * @param onShare 0 to 1; 1 when all has left and the answer is waited for. */
export async function sendTelling(request: Request, onShare: (share: number) => void): Promise<Response> {
  const body = await request.clone().arrayBuffer();
  if (body.byteLength < worthTelling) return fetch(request);
  return new Promise((resolve, reject) => {
    const older = new XMLHttpRequest();
    older.upload.onprogress = (event) => event.lengthComputable && onShare(event.loaded / event.total);
    older.upload.onload = () => onShare(1);
    older.onload = () =>
      resolve(
        new Response(older.responseText, {
          status: older.status,
          headers: { 'Content-Type': older.getResponseHeader('Content-Type') ?? '' },
        }),
      );
    older.onerror = () => reject(new TypeError('the line broke'));
    older.onabort = () => reject(new DOMException('stopped', 'AbortError'));
    request.signal.addEventListener('abort', () => older.abort());
    older.open(request.method, request.url);
    request.headers.forEach((value, name) => older.setRequestHeader(name, value));
    older.send(body);
  });
}
