// Makes written talk rougher, as people speak it and machines hear it: fillers, words said twice, starts that are begun
// again; words heard wrongly; somebody who keeps saying "yeah".
import { seededChance } from '@sift-reel/fitting';
import { pronunciations } from './corpora.mjs';

const FILLERS = ['um,', 'uh,', 'like,', 'you know,', 'I mean,', 'sort of', 'kind of', 'er,'];
const FILLER = 0.05;
const TWICE = 0.03;
const AGAIN = 0.12;

/** A talk file with its sentences roughened, each in its place, so that the readers' marks still fit. */
export function roughen(text, seed) {
  const chance = seededChance(seed);
  return eachSaid(text, (said) => roughSentence(said, chance));
}

/** A talk file with what is said on each line changed. */
const eachSaid = (text, change) =>
  text
    .split('\n')
    .map((line) => {
      if (line.startsWith('#') || line.trim() === '') return line;
      const [, before, said] = /^(\p{Lu}\p{L}+: |- )?(.*)$/u.exec(line);
      return (before ?? '') + change(said);
    })
    .join('\n');

function roughSentence(sentence, chance) {
  const words = sentence.split(' ');
  const out = [];
  if (words.length > 5 && chance() < AGAIN) out.push(words[0], `${words[1].replace(/[,.]$/, '')},`);
  words.forEach((word, i) => {
    if (i > 0 && chance() < FILLER) out.push(FILLERS[Math.floor(chance() * FILLERS.length)]);
    out.push(word);
    if (/^[a-z]{1,4}$/.test(word) && chance() < TWICE) out.push(word);
  });
  return out.join(' ');
}

const MISHEARD = 0.08;
const DROPPED = 0.15;

/**
 * A talk file with words heard wrongly: about one in twelve, each taken for one that sounds almost the same (one sound
 * other, by the CMU pronouncing dictionary) and that the talks have somewhere; some small words are lost instead.
 * @param vocabulary the words that may be heard
 */
export async function mishearer(vocabulary) {
  const { dictionary } = await pronunciations();
  const byShape = new Map();
  const shapesOf = (word) => {
    const sounds = (dictionary[word] ?? '').replace(/\d/g, '').split(' ');
    return sounds.length < 2 ? [] : sounds.map((_, i) => sounds.map((sound, k) => (k === i ? '?' : sound)).join(' '));
  };
  for (const word of [...new Set(vocabulary)].sort()) for (const shape of shapesOf(word)) byShape.set(shape, [...(byShape.get(shape) ?? []), word]);
  return (text, seed) => {
    const chance = seededChance(seed);
    return eachSaid(text, (said) => {
      const words = said.split(' ').flatMap((word, i, all) => {
        const [, before, core, after] = /^(\W*)([a-z']+)(\W*)$/.exec(word) ?? [];
        if (core === undefined || chance() >= MISHEARD) return [word];
        if (core.length <= 3 && all.length > 4 && after === '' && chance() < DROPPED) return [];
        const alike = shapesOf(core).flatMap((shape) => (byShape.get(shape) ?? []).filter((other) => other !== core));
        return alike.length === 0 ? [word] : [before + alike[Math.floor(chance() * alike.length)] + after];
      });
      return words.join(' ');
    });
  };
}

const BACK_CHANNELS = ['Yeah.', 'Mm.', 'Right.', 'Okay.', 'Mm-hm.', 'Sure.', 'Yeah, yeah.', 'Wow.'];
const PUT_IN = 0.3;

/**
 * A marked talk in which somebody else keeps saying "yeah" between the sentences of whoever speaks; marks move along.
 * Talks of one voice stay as they are.
 */
export function talkedOver(marked, seed) {
  const { talk } = marked;
  const voices = [...new Set(talk.sentences.map(({ speaker }) => speaker))];
  if (voices.length < 2) return marked;
  const chance = seededChance(seed);
  const sentences = talk.sentences.flatMap((sentence, s) => {
    const next = talk.sentences[s + 1];
    if (next === undefined || next.speaker !== sentence.speaker || chance() >= PUT_IN) return [sentence];
    const startMs = sentence.endMs + 20;
    const text = BACK_CHANNELS[Math.floor(chance() * BACK_CHANNELS.length)];
    const words = text.split(' ').map((word, i) => ({ text: word, startMs: startMs + 80 * i, endMs: startMs + 80 * (i + 1) }));
    const speaker = voices.find((voice) => voice !== sentence.speaker);
    return [sentence, { text, speaker, afterPause: false, startMs, endMs: words.at(-1).endMs, words }];
  });
  const placeOf = new Map(sentences.map((sentence, i) => [sentence, i]));
  const moved = (s) => placeOf.get(talk.sentences[Math.min(s, talk.sentences.length - 1)]);
  const move = (list) => list.map((mark) => ({ ...mark, first: moved(mark.first), end: moved(mark.end - 1) + 1 }));
  return { ...marked, talk: { ...talk, sentences }, marks: marked.marks.map(move) };
}
