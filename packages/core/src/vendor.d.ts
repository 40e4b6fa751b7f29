declare module 'vader-sentiment' {
  /** Hutto & Gilbert (2014), VADER. `compound` is -1 to 1. */
  export const SentimentIntensityAnalyzer: { polarity_scores(text: string): { compound: number; pos: number; neu: number; neg: number } };
}

// A witness in tests only.
declare module 'wink-nlp/utilities/bm25-vectorizer.js' {
  interface Vectorizer {
    learn(tokens: readonly string[]): void;
    out(what: unknown): never;
  }
  export default function BM25Vectorizer(config: { b: number; k1: number; k: number; norm: 'none' | 'l1' | 'l2' }): Vectorizer;
}
declare module 'wink-nlp/src/its.js' {
  const its: { readonly terms: unknown; readonly docTermMatrix: unknown };
  export default its;
}
