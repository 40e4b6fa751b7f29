// Speech whose words' times are known: Debian's flite says when each of its sounds ends. Which sounds are of which word is found by
// speaking the words one by one and laying their sounds against those of the sentence.
import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';

const run = promisify(execFile);
export const RATE = 16_000;

/** What `flite -psdur` says: its sounds, pauses left out, with the times at which they begin and end. */
export function soundsOf(spoken) {
  const all = spoken
    .trim()
    .split(/\s+/)
    .map((one) => ({ sound: one.split(':')[0], endMs: Number(one.split(':')[1]) * 1_000 }));
  return all.map((one, i) => ({ ...one, startMs: i === 0 ? 0 : all[i - 1].endMs })).filter(({ sound }) => sound !== 'pau');
}

const AT_ONCE = 150;

/** The sounds of each word by itself. @param {Iterable<string>} words @returns {Promise<Map<string, string[]>>} */
export async function aloneSounds(words) {
  const found = new Map();
  const ask = async (some) => {
    const { stdout } = await run('flite', ['-voice', 'kal', '-t', some.map((word) => `${word.replace(/[.?!,;:]+$/, '')}.`).join('\n'), '-ps', '-o', 'none']);
    const said = stdout
      .split(/\bpau\b/)
      .map((one) => one.trim())
      .filter((one) => one !== '');
    if (said.length === some.length) some.forEach((word, i) => found.set(word, said[i].split(/\s+/)));
    else if (some.length > 1) {
      // One of them is said with a pause in it.
      await ask(some.slice(0, some.length >> 1));
      await ask(some.slice(some.length >> 1));
    } else
      found.set(
        some[0],
        said.flatMap((one) => one.split(/\s+/)),
      );
  };
  const unique = [...new Set(words)];
  for (let from = 0; from < unique.length; from += AT_ONCE) await ask(unique.slice(from, from + AT_ONCE));
  return found;
}

/** The words of a text as they are spoken one by one. */
export const spokenWords = (text) => text.split(/\s+/).filter((one) => /[\p{L}\p{N}]/u.test(one));

/** For each sound of the sentence which of the single words' sounds it is, by the cheapest edits (Levenshtein 1966). */
function layAgainst(sentence, words) {
  const owners = words.flatMap(({ sounds }, i) => sounds.map((sound) => ({ sound, word: i })));
  const width = owners.length + 1;
  const cost = new Float64Array((sentence.length + 1) * width);
  for (let i = sentence.length; i >= 0; i -= 1)
    for (let j = owners.length; j >= 0; j -= 1) {
      if (i === sentence.length || j === owners.length) cost[i * width + j] = sentence.length - i + owners.length - j;
      else
        cost[i * width + j] = Math.min(
          cost[(i + 1) * width + j + 1] + (sentence[i].sound === owners[j].sound ? 0 : 0.9),
          cost[(i + 1) * width + j] + 1,
          cost[i * width + j + 1] + 1,
        );
    }
  const owner = [];
  for (let i = 0, j = 0; i < sentence.length;) {
    const here = cost[i * width + j];
    if (j < owners.length && here === cost[(i + 1) * width + j + 1] + (sentence[i].sound === owners[j].sound ? 0 : 0.9)) {
      owner.push(owners[j].word);
      i += 1;
      j += 1;
    } else if (j === owners.length || here === cost[(i + 1) * width + j] + 1) {
      owner.push(owners[Math.min(j, owners.length - 1)].word);
      i += 1;
    } else j += 1;
  }
  return owner;
}

/**
 * When each word of a sentence is said.
 * @param {string[]} texts its words
 * @param {ReturnType<typeof soundsOf>} sounds
 * @param {Map<string, string[]>} alone what `aloneSounds` gave
 * @returns {({ startMs: number, endMs: number } | null)[]} null for a word that is not heard by itself
 */
export function placeSpoken(texts, sounds, alone) {
  const owner = layAgainst(
    sounds,
    texts.map((one) => ({ sounds: alone.get(one) ?? [] })),
  );
  return texts.map((_, i) => {
    const own = sounds.filter((_, k) => owner[k] === i);
    return own.length === 0 ? null : { startMs: own[0].startMs, endMs: own.at(-1).endMs };
  });
}

/**
 * Speaks sentences one after another, with pauses between: after each its own, or the usual one.
 * @param {{ voice: string, text: string, pauseMs?: number }[]} sentences
 * @returns {Promise<{ samples: Int16Array, words: { text: string, startMs: number, endMs: number }[] }>} 16 kHz mono
 */
export async function speakWords(sentences) {
  const folder = await mkdtemp(join(tmpdir(), 'sift-reel-flite-'));
  try {
    const alone = await aloneSounds(sentences.flatMap(({ text }) => spokenWords(text)));
    const pieces = [];
    const words = [];
    let atMs = 0;
    for (const { voice, text, pauseMs = 350 } of sentences) {
      const wav = join(folder, 'one.wav');
      const { stdout } = await run('flite', ['-voice', voice, '-t', text, '-psdur', '-o', wav]);
      const texts = spokenWords(text);
      placeSpoken(texts, soundsOf(stdout), alone).forEach((span, i) => {
        if (span !== null) words.push({ text: texts[i], startMs: atMs + span.startMs, endMs: atMs + span.endMs });
      });
      const bytes = await readFile(wav);
      const pcm = bytes.subarray(bytes.indexOf('data') + 8);
      const samples = new Int16Array(pcm.buffer.slice(pcm.byteOffset, pcm.byteOffset + (pcm.length & ~1)));
      const pause = new Int16Array((RATE * pauseMs) / 1_000);
      pieces.push(samples, pause);
      atMs += ((samples.length + pause.length) / RATE) * 1_000;
    }
    const all = new Int16Array(pieces.reduce((sum, { length }) => sum + length, 0));
    let at = 0;
    for (const piece of pieces) {
      all.set(piece, at);
      at += piece.length;
    }
    return { samples: all, words };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
