import { type MarkedTalk, mean, overlap, type Passage } from './agreement.js';
import { gradesOf, meanOver } from './marks.js';

/** How much the grades inside count against how well the edges meet a passage that a reader marked. */
const INSIDE = 0.7;
const EDGES = 0.6;

/**
 * What a passage is worth by the readers, about 0 to 6.5: their mean grade over it, and how well it meets the best of the
 * passages each of them marked (intersection over union, times its grade). The first finds the place, the second the edges.
 */
export function worthOf({ talk, marks }: MarkedTalk, passages: readonly Passage[]): number[] {
  const grades = marks.map((list) => gradesOf(talk, list));
  const spans = marks.map((list) =>
    list
      .filter((mark) => mark.grade > 0)
      .map((mark) => ({
        grade: mark.grade,
        startMs: talk.sentences[mark.first]!.startMs,
        endMs: talk.sentences[Math.min(mark.end, talk.sentences.length) - 1]!.endMs,
      })),
  );
  return passages.map((passage) => {
    const inside = mean(grades.map((grade) => meanOver(talk, grade, passage.startMs, passage.endMs)));
    const edges = mean(spans.map((list) => list.reduce((best, span) => Math.max(best, span.grade * overlap(passage, span)), 0)));
    return INSIDE * inside + EDGES * edges;
  });
}
