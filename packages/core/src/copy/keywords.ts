import { stem } from '../text/stem.js';
import { keyPhrases, type Passage } from './phrases.js';
import type { RecordingSubject, SubjectTerm } from './recording-tags.js';
import { KEYWORD_LIMIT } from './types.js';
import { proposeTitles } from './written/titles.js';
import type { TitleContext } from './written/title-features.js';

/** How many of each sort: people type a question less often than what a thing is called (common practice). */
const [MOST_PHRASES, MOST_ABOUT, MOST_QUESTIONS] = [2, 4, 1];
/** Said so often, a compound is what the recording is about. */
const OF_RECORDING = 4;

/**
 * What somebody would type who looks for the passage: phrases of two and three words that are said in it, what the recording is
 * about together with what the passage is about ("heat pump curve"), and a question that it answers, where it asks one. All words
 * are said in the recording. Without the subject (talk that is not English), the key phrases alone.
 */
export function proposeKeywords(context: TitleContext, subject: RecordingSubject | null, most: number): string[] {
  const { passage, statistics } = context;
  const phrases = keyPhrases(passage, statistics, 3 * most).map(({ text }) => text);
  if (subject === null) return fitting(phrases).slice(0, most);
  const here = new Set(passage.texts.slice(passage.firstWord, passage.endWord).map(stem));
  const said = subject.compounds.filter(({ stems }) => stems.every((one) => here.has(one))).map(({ text }) => text);
  const compounds = unlike([...said, ...phrases.filter((text) => text.includes(' '))]).slice(0, MOST_PHRASES);
  const head = headOf(subject);
  const own = new Set(head === undefined ? [] : head.stems);
  // What only this passage says, once, is nothing that anybody looks for beside its subject: "heat pump desk".
  const singles = nouns(subject)
    .filter(({ stems }) => stems.every((one) => here.has(one)) && !stems.some((one) => own.has(one)))
    .map(({ text }) => text);
  const repeated = phrases.filter((text) => !text.includes(' ') && !own.has(stem(text)) && timesSaid(passage, stem(text)) >= SAID_AGAIN);
  const about = unlike([...singles, ...repeated]).map((text) => (head === undefined ? text : `${head.text} ${text}`));
  const question = proposeTitles(context, KEYWORD_LIMIT, 12)
    .filter(({ sort, draft }) => !draft && (sort === 'question' || sort === 'how' || sort === 'why' || sort === 'when'))
    .map(({ text }) => text.replace(/[?.]+$/, '').toLowerCase());
  return fitting([...compounds, ...about.slice(0, MOST_ABOUT), ...question.slice(0, MOST_QUESTIONS)]).slice(0, most);
}

/** What the recording is about: the compound that is said over and over, else the word that is said most of those that tell. */
function headOf(subject: RecordingSubject): SubjectTerm | undefined {
  const { compounds } = subject;
  const told = [...nouns(subject).slice(0, MOST_TELLING)].sort((a, b) => b.count - a.count);
  return compounds.find(({ count }) => count >= OF_RECORDING) ?? told[0] ?? compounds[0];
}
const MOST_TELLING = 8;

/** What is done ("sitting") names nothing by itself. */
const nouns = ({ singles }: RecordingSubject): SubjectTerm[] => singles.filter(({ text }) => !text.endsWith('ing'));

const SAID_AGAIN = 2;
const timesSaid = ({ texts, firstWord, endWord }: Passage, key: string): number => texts.slice(firstWord, endWord).filter((text) => stem(text) === key).length;

const fitting = (texts: readonly string[]): string[] => [...new Set(texts)].filter((text) => text.length <= KEYWORD_LIMIT);

/** No two whose words are the same in other forms, or that stand in one another. */
function unlike(texts: readonly string[]): string[] {
  const taken: string[] = [];
  return texts.filter((text) => {
    const key = text.split(' ').map(stem).join(' ');
    if (taken.some((other) => other.includes(key) || key.includes(other))) return false;
    taken.push(key);
    return true;
  });
}
