import { createRequire } from 'node:module';
import { type EmbeddingsModel, initModel, type EmbeddingsModelSource } from '@energetic-ai/embeddings';

// Its types are those of packages that it does not bring along.
const { ready } = createRequire(import.meta.url)('@energetic-ai/core') as { ready: () => Promise<void> };

/**
 * A model that starts with the first call, once. A start that failed is not kept: the next call tries again.
 *
 * The library loads weights while its backend is still getting ready, and fails where they are there first; so here it is
 * one after the other.
 */
export function modelFrom(source: EmbeddingsModelSource): () => Promise<EmbeddingsModel> {
  let started: Promise<EmbeddingsModel> | null = null;
  const weights: EmbeddingsModelSource = async () => {
    await ready();
    return source();
  };
  return () => {
    started ??= initModel(weights).catch((error: unknown) => {
      started = null;
      throw error;
    });
    return started;
  };
}
