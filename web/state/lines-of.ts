/** What a server tells line by line as JSON: whole lines, as many at once as came. */
export async function* linesOf<T>(body: ReadableStream<Uint8Array>): AsyncGenerator<readonly T[]> {
  const reader = body.getReader();
  const decoder = new TextDecoder();
  let rest = '';
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    const parts = (rest + decoder.decode(value, { stream: true })).split('\n');
    rest = parts.pop() ?? '';
    if (parts.length > 0) yield parts.map((part) => JSON.parse(part) as T);
  }
}
