// What a file of a short costs beside bare ffmpeg doing the same filters and encoding: the drawing of its captions and the measuring of
// its sound are ours to keep small. Ratios in one run; the source is made here, with the sound that each way to its loudness is for.
// Asked: at most 1.1.
import { execFile } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { captionsOfCut, cutListOf, NO_EDIT, PLAIN_CARD, playedRuns, SHORT_LINE } from '@sift-reel/core';
import { captionStripOf, drawFrame } from '../apps/server/dist/text/document-tasks.js';
import { evenArgs, measureArgs, renderArgs } from '../apps/server/dist/rendering/ffmpeg-args.js';
import { captionList } from '../apps/server/dist/rendering/caption-list.js';
import { findLevel } from '../apps/server/dist/rendering/level.js';
import { madeFilm } from './lib/made-film.mjs';
import { row } from './measure.mjs';

const run = promisify(execFile);
const ffmpeg = (args) => run('ffmpeg', ['-hide_banner', '-nostdin', '-nostats', '-y', ...args], { maxBuffer: 50_000_000 });
const timed = async (work) => {
  const from = performance.now();
  const result = await work();
  return { result, ms: performance.now() - from };
};

const folder = await mkdtemp(join(tmpdir(), 'sift-reel-render-'));
try {
  const film = join(folder, 'film.mp4');
  await madeFilm(film, { rate: 30, seconds: 150, gop: 250 });
  // As it is a gain is enough. With a knock every second, peaks go too high; with one voice far behind the other, it is evened out.
  const knocks = "aeval='val(ch)+0.9*sin(2*PI*900*t)*lt(mod(t,1),0.004)':c=same";
  const far = "volume='if(lt(mod(t,20),10),1,0.08)':eval=frame";
  const sources = { gain: film };
  for (const [kind, filter] of Object.entries({ limited: knocks, even: far })) {
    sources[kind] = join(folder, `${kind}.mp4`);
    await ffmpeg(['-v', 'error', '-i', film, '-c:v', 'copy', '-af', filter, '-c:a', 'aac', '-b:a', '96k', sources[kind]]);
  }
  // Talk of 2.5 words a second, sentences of twelve.
  const words = Array.from({ length: 360 }, (_, i) => ({
    text: `word${i}${i % 12 === 11 ? '.' : ''}`,
    kind: 'word',
    speaker: 0,
    startMs: i * 400,
    endMs: i * 400 + 320,
  }));
  const sentences = Array.from({ length: 30 }, (_, i) => ({
    firstWord: 12 * i,
    endWord: 12 * (i + 1),
    speaker: 0,
    startMs: 4_800 * i,
    endMs: 4_800 * (i + 1) - 80,
  }));
  const transcript = { words, sentences, speakers: ['Ann'] };
  row('40 s of 1080p', 'drawn', 'measured', 'rendered', 'all / rendered');
  for (const [shape, parts, kind, way] of [
    ['vertical', 1, 'film', 'gain'],
    ['vertical', 6, 'film', 'limited'],
    ['wide', 1, 'film', 'even'],
    ['vertical', 1, 'sound', 'gain'],
    ['vertical', 1, 'sound', 'limited'],
    ['vertical', 1, 'sound', 'even'],
  ]) {
    const source = sources[way];
    const pictured = kind === 'film';
    const each = Math.floor(100 / parts);
    const runs = Array.from({ length: parts }, (_, i) => {
      const firstWord = 100 + 40 * i - (parts > 1 ? 60 : 0);
      return { firstWord, endWord: firstWord + each };
    });
    const passage = { ...runs[0], edit: { ...NO_EDIT, after: runs.slice(1) } };
    const plan = {
      source,
      pictured,
      shape,
      rate: { numerator: 30, denominator: 1 },
      passage,
      cuts: cutListOf(words, playedRuns(words, passage)),
      captions: captionsOfCut(transcript, passage, { longestLine: SHORT_LINE }),
      ground: pictured ? null : { title: 'Cold air is heavy', credits: ['Up the Flue'] },
      style: PLAIN_CARD,
      loudness: { integrated: -14, peak: -1 },
    };
    const place = pictured ? 'picture' : 'ground';
    const draw = async (name, task) => {
      const path = join(folder, `${name}.png`);
      await writeFile(path, await drawFrame({ shape, style: PLAIN_CARD, place, ...task }));
      return path;
    };
    // As the program does: pictures and the first pass over the sound at once.
    const before = performance.now();
    const drawing = timed(async () => {
      const ground = await draw('ground', { ground: plan.ground });
      const texts = plan.captions.map(({ text }) => text);
      const strip = await captionStripOf({ shape, style: PLAIN_CARD, place, captions: texts });
      const blank = await draw('blank', { caption: '', strip });
      const paths = [];
      for (const [i, caption] of texts.entries()) paths.push(await draw(`caption-${i}`, { caption, strip }));
      const captions = join(folder, 'captions.txt');
      await writeFile(captions, captionList(plan, paths, blank));
      return { ground, captions, strip };
    });
    const measuring = timed(() =>
      findLevel(
        plan.loudness,
        async (after) => (await ffmpeg(measureArgs(plan, source, after))).stderr,
        async () => (await ffmpeg(evenArgs(plan, source))).stderr,
      ),
    );
    const [drawn, measured] = await Promise.all([drawing, measuring]);
    if (measured.result.kind !== way) throw new Error(`${way} became ${measured.result.kind}`);
    const beforeMs = performance.now() - before;
    const rendered = await timed(() => ffmpeg(renderArgs(plan, source, drawn.result, measured.result, join(folder, 'made.mp4'))));
    const all = beforeMs + rendered.ms;
    const name = `${kind}, ${shape}, ${parts} ${parts === 1 ? 'part' : 'parts'}, ${way}`;
    row(name, ...[drawn.ms, measured.ms, rendered.ms].map((ms) => `${(ms / 1_000).toFixed(1)} s`), (all / rendered.ms).toFixed(2));
  }
} finally {
  await rm(folder, { recursive: true, force: true });
}
