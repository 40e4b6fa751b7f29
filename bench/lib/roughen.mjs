// Makes written talk rougher, as people speak it: fillers, words said twice, starts that are begun again.
import { seededChance } from '@sift-reel/fitting';

const FILLERS = ['um,', 'uh,', 'like,', 'you know,', 'I mean,', 'sort of', 'kind of', 'er,'];
const FILLER = 0.05;
const TWICE = 0.03;
const AGAIN = 0.12;

/** A talk file with its sentences roughened, each in its place, so that the readers' marks still fit. */
export function roughen(text, seed) {
  const chance = seededChance(seed);
  return text
    .split('\n')
    .map((line) => {
      if (line.startsWith('#') || line.trim() === '') return line;
      const [, before, said] = /^(\p{Lu}\p{L}+: |- )?(.*)$/u.exec(line);
      return (before ?? '') + roughSentence(said, chance);
    })
    .join('\n');
}

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
