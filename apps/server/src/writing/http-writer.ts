import { readWrittenWords } from './written-words.js';
import { type Writer, WriterError, type WriterRequest, type WrittenWords } from './writer.js';

/** Longer is not waited for, and more is not read. */
const [LONGEST_MS, MOST_BYTES] = [60_000, 262_144];

/** A writing service of the user's own, asked over HTTP (docs/writing-service.md). Only the address that the configuration names is asked. */
export class HttpWriter implements Writer {
  /** @param key sent as a bearer token; never logged */
  constructor(
    private readonly url: string,
    private readonly key: string | null,
    private readonly longestMs = LONGEST_MS,
  ) {}

  async write(request: WriterRequest, signal: AbortSignal): Promise<{ words: WrittenWords; raw: string }> {
    const late = AbortSignal.timeout(this.longestMs);
    const raw = await this.ask(request, AbortSignal.any([signal, late])).catch((error: unknown) => {
      signal.throwIfAborted();
      if (error instanceof WriterError) throw error;
      throw new WriterError(
        late.aborted ? `The writing service did not answer within ${this.longestMs / 1000} seconds.` : 'The writing service cannot be reached.',
        true,
      );
    });
    return { words: readWrittenWords(raw), raw };
  }

  private async ask(request: WriterRequest, signal: AbortSignal): Promise<string> {
    const response = await fetch(this.url, {
      method: 'POST',
      redirect: 'error',
      signal,
      headers: { 'content-type': 'application/json', accept: 'application/json', ...(this.key === null ? {} : { authorization: `Bearer ${this.key}` }) },
      body: JSON.stringify(request),
    });
    if (!response.ok) {
      await response.body?.cancel();
      throw new WriterError(`The writing service refused (${response.status}).`, response.status >= 500 || response.status === 429);
    }
    return readAtMost(response, MOST_BYTES);
  }
}

async function readAtMost(response: Response, most: number): Promise<string> {
  const chunks: Uint8Array[] = [];
  let bytes = 0;
  for await (const chunk of response.body ?? []) {
    bytes += (chunk as Uint8Array).length;
    if (bytes > most) throw new WriterError('The writing service answered with more than 256 KB.', false);
    chunks.push(chunk as Uint8Array);
  }
  return Buffer.concat(chunks).toString('utf8');
}
