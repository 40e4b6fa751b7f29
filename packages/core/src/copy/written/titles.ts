import { cleanLine, shorten } from '../said-line.js';
import { contentOf, shared } from './content.js';
import { titleFeatures, type TitleContext, weighed } from './title-features.js';
import { type Topic, topicLacking } from '../topics/topics.js';
import type { Manner } from '../voice/manner.js';
import { SAID_SORTS, saidSort } from './said-sorts.js';
import { TITLE_SORTS, type TitleDraft, titleDrafts } from './title-sorts.js';
import { TITLE_WEIGHTS } from './title-weights.js';
import { asksRoom, isBroken, leans } from './wholeness.js';

/** What a title that is proposed does: a draft's sort, what a quoted line does, or it names the topic and then says something of it. */
export const PROPOSED_SORTS = [...TITLE_SORTS, ...SAID_SORTS, 'topic'] as const;
export type ProposedSort = (typeof PROPOSED_SORTS)[number];

/** A title that is proposed. */
export interface ProposedTitle {
  readonly text: string;
  /** It without the topic before it. */
  readonly line: string;
  readonly sort: ProposedSort;
  /** Words of the passage that it was made of, from the first to the one after the last. */
  readonly firstWord: number;
  readonly endWord: number;
  /** True where it may not be whole: to be looked at before it goes out. */
  readonly draft: boolean;
}

/** Two titles of so many content words in common say the same. */
const SAME = 0.6;
/** A draft as the client would write it. */
interface RankedTitle {
  readonly draft: TitleDraft;
  readonly worth: number;
  /** With the topic before it that it lacks; null where it lacks none, or that is too long. Reckoned when it is asked for: few are. */
  withTopic(): { readonly topic: Topic; readonly text: string } | null;
}

/** The drafts of a passage with what each is worth, the best first. @param limit characters */
export function rankedTitles(context: TitleContext, limit: number, weights: ArrayLike<number> = TITLE_WEIGHTS): RankedTitle[] {
  const drafts = titleDrafts(context.passage, limit);
  const rows = titleFeatures(drafts, context);
  const { manner } = context;
  const topics = (context.topics ?? []).filter(({ text }) => manner?.avoids(text) !== true);
  return drafts
    .map((draft, i) => ({
      draft: manner === undefined ? draft : { ...draft, text: manner.write('title', draft.text) },
      worth: weighed(rows[i]!, weights) + (manner?.worth(draft.text) ?? 0),
      withTopic: () => withTopic(draft, topics, manner, limit),
    }))
    .filter(({ draft }) => draft.text.length <= limit)
    .sort((a, b) => b.worth - a.worth || a.draft.text.localeCompare(b.draft.text));
}

/** "Seed potatoes: Has anybody done the test?" A capital, since a name may begin the line. */
function withTopic({ line, text }: TitleDraft, topics: readonly Topic[], manner: Manner | undefined, limit: number): ReturnType<RankedTitle['withTopic']> {
  const topic = topicLacking(
    line.map(({ norm }) => norm),
    topics,
  );
  if (topic === null) return null;
  const said = `${topic.text.charAt(0).toUpperCase()}${topic.text.slice(1)}: ${text}`;
  const written = manner?.write('title', said) ?? said;
  return written.length <= limit ? { topic, text: written } : null;
}

/**
 * Titles for a passage, the best first, no two that say the same. One whose line names nothing that the passage is about has the
 * topic before it; no topic stands before two, nor before what may not be whole.
 * @param limit characters, @param most how many
 */
export function proposeTitles(context: TitleContext, limit: number, most: number, weights: ArrayLike<number> = TITLE_WEIGHTS): ProposedTitle[] {
  const taken: { words: ReadonlySet<string>; title: ProposedTitle }[] = [];
  const named = new Set<Topic>();
  for (const { draft, withTopic: ask } of rankedTitles(context, limit, weights)) {
    const words = contentOf(draft.line.map(({ norm }) => norm));
    if (taken.some((other) => shared(other.words, words) >= SAME)) continue;
    const said = draft.line.filter((word) => word.end > word.first);
    const doubtful = isDoubtful(draft);
    const lacking = doubtful ? null : ask();
    const own = lacking === null || named.has(lacking.topic) ? null : lacking;
    if (own !== null) named.add(own.topic);
    const title = {
      text: own?.text ?? draft.text,
      line: draft.text,
      sort: own === null ? (saidSort(draft) ?? draft.sort) : ('topic' as const),
      firstWord: Math.min(...said.map(({ first }) => first)),
      endWord: Math.max(...said.map(({ end }) => end)),
      draft: doubtful,
    };
    taken.push({ words, title });
    if (taken.length === most) break;
  }
  return taken.map(({ title }) => title);
}

/** The title that a passage gets by itself, and its line, without the topic that may stand before it. */
export interface OwnTitle {
  readonly text: string;
  readonly line: string;
}

/** The best title that is whole; else the best that at least does not break off; else the first line as it was said. @param limit characters */
export function titleOf(context: TitleContext, limit: number): OwnTitle {
  const { passage } = context;
  const ranked = rankedTitles(context, limit);
  const whole = ranked.find(({ draft }) => !isDoubtful(draft));
  if (whole !== undefined) return { text: whole.withTopic()?.text ?? whole.draft.text, line: whole.draft.text };
  const leaning = ranked.find(({ draft }) => !isBroken(draft) && !draft.resolved);
  const line = leaning?.draft.text ?? shorten(cleanLine(passage, passage.firstWord, passage.endWord), limit);
  return { text: line, line };
}

/** It may not be whole, or say what was not said. */
const isDoubtful = (draft: TitleDraft): boolean => isBroken(draft) || leans(draft) || asksRoom(draft) || draft.resolved;
