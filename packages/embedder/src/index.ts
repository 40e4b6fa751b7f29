export { Embedder, EmbedderError } from './embedder.js';
export { DIMENSIONS, MODEL_NAME, sentenceKey } from './sentence-key.js';
export type { EmbedderOptions, EmbedHooks, VectorCache } from './embedder.js';
