declare module 'vader-sentiment' {
  /** Hutto & Gilbert (2014), VADER. `compound` is -1 to 1. */
  export const SentimentIntensityAnalyzer: { polarity_scores(text: string): { compound: number; pos: number; neu: number; neg: number } };
}
