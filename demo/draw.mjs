// Draws the picture of a spoken recording: made-up people at a table, whose mouths move with the sound's energy, a camera that shows one
// or all of them, a slide now and then. Every picture that differs is drawn once (SVG, resvg); a film is a long list of them.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createHash } from 'node:crypto';
import { readFile, rename, rm, writeFile } from 'node:fs/promises';
import { Resvg } from '@resvg/resvg-js';
import { typefaceOf } from '../apps/server/dist/text/typefaces.js';

/** What is drawn on, and what is encoded; a face moves half as often as a film has frames. */
const [WIDTH, HEIGHT] = [848, 480];
const [PIXELS, LINES, FPS, MOVES] = [768, 432, 25, 12.5];
const FRAME_MS = 1_000 / MOVES;
const RATE = 8_000;
/** How far a mouth opens, from how much below the loudest, in dB. */
const OPENINGS_DB = [-26, -18, -11];
const [BLINK_EVERY_MS, BLINK_MS] = [4_300, 160];
/** Who speaks for longer is shown alone; a cut is not sooner after another. */
const [ALONE_FROM_MS, LEAST_SHOT_MS] = [5_000, 2_800];
const [SLIDE_EVERY_MS, SLIDE_MS] = [110_000, 5_000];
/** What stands on a slide: a sentence of so many words at least, and of so many letters at most. */
const [LEAST_WORDS, MOST_LETTERS] = [6, 90];

/** Made-up faces: skin, hair, its cut, shirt, and what else there is. */
const PEOPLE = [
  { skin: '#e8b894', hair: '#5a3423', cut: 'long', shirt: '#3f6f6a', glasses: true },
  { skin: '#d79f7c', hair: '#9a948c', cut: 'short', shirt: '#8a4b3a', beard: true },
  { skin: '#a8714f', hair: '#241c18', cut: 'curly', shirt: '#c6953d', glasses: false },
];

const ellipse = (cx, cy, rx, ry, fill, more = '') => `<ellipse cx="${cx}" cy="${cy}" rx="${rx}" ry="${ry}" fill="${fill}" ${more}/>`;
const rect = (x, y, w, h, fill, r = 0) => `<rect x="${x}" y="${y}" width="${w}" height="${h}" rx="${r}" fill="${fill}"/>`;

/** One of them from the waist up, about (0, 0), which lies between the eyes. @param open 0 to 3 */
function person({ skin, hair, cut, shirt, beard, glasses }, open, blink) {
  const eyes = [-17, 17].map((x) =>
    blink ? `<path d="M${x - 7} 0q7 4 14 0" stroke="#33241c" stroke-width="2.5" fill="none"/>` : ellipse(x, 0, 4.6, 5.2, '#33241c'),
  );
  const mouth =
    open === 0
      ? '<path d="M-13 34q13 6 26 0" stroke="#7c3b33" stroke-width="3.5" fill="none" stroke-linecap="round"/>'
      : ellipse(0, 35, 12 + open, 2.5 + 3.2 * open, '#5d2420') + ellipse(0, 36 + 2 * open, 7, 1 + open, '#b4635b');
  const behind = cut === 'long' ? `<path d="M-58 -10q0 -62 58 -62t58 62v86q-22 18 -34 4v-70h-48v70q-12 14 -34 -4z" fill="${hair}"/>` : '';
  const top =
    cut === 'curly'
      ? [-42, -22, 0, 22, 42].map((x) => ellipse(x, -46 + Math.abs(x) / 3, 18, 17, hair)).join('')
      : `<path d="M-49 -14q-2 -56 49 -56t49 56q-14 -30 -49 -30t-49 30z" fill="${hair}"/>`;
  return [
    behind,
    `<path d="M-96 190v-34q0 -58 62 -64h68q62 6 62 64v34z" fill="${shirt}"/>`,
    rect(-17, 52, 34, 50, skin, 12),
    ellipse(0, 8, 48, 60, skin),
    beard ? `<path d="M-46 18q4 56 46 56t46 -56q-10 12 -22 8q-24 -8 -48 0q-12 4 -22 -8z" fill="${hair}"/>` : '',
    top,
    ...eyes,
    ...[-17, 17].map((x) => `<path d="M${x - 10} -14q10 -6 20 0" stroke="${hair}" stroke-width="3.5" fill="none"/>`),
    '<path d="M0 6q-5 12 3 15" stroke="#0004" stroke-width="2.5" fill="none"/>',
    glasses
      ? [-17, 17].map((x) => ellipse(x, 0, 13, 12, 'none', 'stroke="#222" stroke-width="2.5"')).join('') +
        '<path d="M-4 0h8" stroke="#222" stroke-width="2.5"/>'
      : '',
    mouth,
  ].join('');
}

const microphone = (x, y) => rect(x - 3, y, 6, 90, '#2b2b30') + rect(x - 13, y - 34, 26, 44, '#3a3a41', 12) + rect(x - 13, y - 14, 26, 4, '#8d8d96');

const ROOM = [
  rect(0, 0, WIDTH, HEIGHT, '#d9cdb8'),
  rect(0, 330, WIDTH, 150, '#bfae92'),
  rect(60, 50, 180, 150, '#9fb7bd', 6) + rect(146, 50, 8, 150, '#efe7d6') + rect(60, 120, 180, 8, '#efe7d6'),
  rect(590, 120, 200, 10, '#7b5a3c') +
    [0, 1, 2, 3, 4, 5].map((i) => rect(604 + i * 28, 120 - 44 - (i % 3) * 9, 20, 44 + (i % 3) * 9, ['#7d8c5c', '#a2543f', '#4d6372'][i % 3], 2)).join(''),
].join('');
const TABLE = rect(0, 400, WIDTH, 80, '#8a6642') + rect(0, 400, WIDTH, 8, '#a57d55');

/** All of them at the table, or one. @param shot -1 for all */
function scene(people, shot, speaking, open, blink) {
  const drawn = (i, x, y, scale) => `<g transform="translate(${x} ${y}) scale(${scale})">${person(people[i], i === speaking ? open : 0, blink === i)}</g>`;
  const shown =
    shot >= 0
      ? drawn(shot, 424, 200, 1.55) + rect(0, 440, WIDTH, 40, '#8a6642') + microphone(600, 380)
      : people
          .map((_, i) => {
            const x = (WIDTH / (people.length + 1)) * (i + 1);
            return drawn(i, x, 230, 1) + microphone(x + 62, 340);
          })
          .join('') + TABLE;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${PIXELS}" height="${LINES}" viewBox="0 0 ${WIDTH} ${HEIGHT}">${ROOM}${shown}</svg>`;
}

/** A slide: what is being said, large, on a ground of its own. */
function slide(text, about, typeface, small) {
  const lines = [];
  for (const word of text.split(/\s+/)) {
    const last = lines.at(-1);
    if (last !== undefined && typeface.width(`${last} ${word}`, 44) < WIDTH - 150) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  const from = 250 - lines.length * 27;
  const drawn = lines.map((line, i) => `<path d="${typeface.outline(line, 75, from + i * 56 + 40, 44)}" fill="#2a2622"/>`);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${PIXELS}" height="${LINES}" viewBox="0 0 ${WIDTH} ${HEIGHT}">${rect(0, 0, WIDTH, HEIGHT, '#f3ecdf')}${rect(0, 0, 18, HEIGHT, '#3f6f6a')}${drawn.join('')}<path d="${small.outline(about, 75, 430, 20)}" fill="#6b6257"/></svg>`;
}

/** RGBA to planar 4:2:0, limited range (ITU-R BT.709). */
function yuvOf(rgba) {
  const out = Buffer.alloc((PIXELS * LINES * 3) / 2);
  const [u, v] = [PIXELS * LINES, (PIXELS * LINES * 5) / 4];
  for (let y = 0; y < LINES; y += 1)
    for (let x = 0; x < PIXELS; x += 1) {
      const at = 4 * (y * PIXELS + x);
      const [r, g, b] = [rgba[at], rgba[at + 1], rgba[at + 2]];
      out[y * PIXELS + x] = 16.5 + 0.1826 * r + 0.6142 * g + 0.062 * b;
      if ((x | y) & 1) continue;
      const chroma = (y >> 1) * (PIXELS >> 1) + (x >> 1);
      out[u + chroma] = 128.5 - 0.1006 * r - 0.3386 * g + 0.4392 * b;
      out[v + chroma] = 128.5 + 0.4392 * r - 0.3989 * g - 0.0403 * b;
    }
  return out;
}

const secondsOf = (stamp) => stamp.split(':').reduce((sum, part) => sum * 60 + Number(part), 0);

/** Turns of a transcript as it was written by `speak.mjs`: who speaks, from when to when, in ms, and what is said first. */
function turnsOf(vtt) {
  const turns = [];
  for (const [, from, to, who, text] of vtt.matchAll(/^([\d:.]+) --> ([\d:.]+)\n<v ([^>]+)>(.*)$/gm)) {
    const last = turns.at(-1);
    if (last?.who === who) last.endMs = secondsOf(to) * 1_000;
    else turns.push({ who, startMs: secondsOf(from) * 1_000, endMs: secondsOf(to) * 1_000, text: text.replace(/<[^>]*>|\[[^\]]*\]/g, '').trim() });
  }
  return turns;
}

/** How far the mouth of whoever speaks is open, for each frame. */
async function openings(soundFile) {
  const child = spawn('ffmpeg', ['-v', 'error', '-nostdin', '-i', soundFile, '-ac', '1', '-ar', String(RATE), '-f', 's16le', '-'], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const per = RATE / MOVES;
  const levels = [];
  let [sum, count, odd] = [0, 0, Buffer.alloc(0)];
  for await (const chunk of child.stdout) {
    const bytes = Buffer.concat([odd, chunk]);
    const whole = bytes.length - (bytes.length % 2);
    for (let i = 0; i < whole; i += 2) {
      const value = bytes.readInt16LE(i) / 32_768;
      sum += value * value;
      count += 1;
      if (count < per) continue;
      levels.push(10 * Math.log10(sum / per + 1e-10));
      [sum, count] = [0, 0];
    }
    odd = bytes.subarray(whole);
  }
  const loudest = [...levels].sort((a, b) => a - b)[Math.floor(levels.length * 0.98)];
  return levels.map((db) => OPENINGS_DB.filter((from) => db - loudest > from).length);
}

/** What is seen in each frame, as the key of a picture. */
function plan(turns, names, open) {
  const keys = [];
  let [turn, shot, shotFromMs, slideUntilMs, nextSlideMs, slideText] = [0, -1, 0, -1, SLIDE_EVERY_MS, ''];
  for (let frame = 0; frame < open.length; frame += 1) {
    const ms = frame * FRAME_MS;
    while (turn + 1 < turns.length && turns[turn + 1].startMs <= ms) turn += 1;
    const { who, startMs, endMs, text } = turns[turn];
    const speaks = ms >= startMs && ms < endMs;
    const wanted = speaks && endMs - startMs > ALONE_FROM_MS ? names.indexOf(who) : -1;
    if (wanted !== shot && ms - shotFromMs > LEAST_SHOT_MS) [shot, shotFromMs] = [wanted, ms];
    if (ms > nextSlideMs && ms - startMs < FRAME_MS && endMs - startMs > 2 * SLIDE_MS) {
      slideText = /^.*?[.?!](?=\s|$)/.exec(text)?.[0] ?? text;
      if (slideText.length <= MOST_LETTERS && slideText.split(' ').length >= LEAST_WORDS) [slideUntilMs, nextSlideMs] = [ms + SLIDE_MS, ms + SLIDE_EVERY_MS];
    }
    if (ms < slideUntilMs) {
      keys.push(`slide ${slideText}`);
      continue;
    }
    const blinking = names.findIndex((_, i) => (ms + i * 1_700) % BLINK_EVERY_MS < BLINK_MS);
    const seen = shot === -1 || blinking === shot ? blinking : -1;
    keys.push([shot, speaks ? names.indexOf(who) : -1, speaks ? open[frame] : 0, seen].join(' '));
  }
  return keys;
}

/**
 * Draws the film of a spoken recording beside its sound, under the same name. Skips it when it is there already.
 * @param recording as `speakRecording` gives it
 * @param progress told what share is drawn
 */
export async function drawRecording({ title, voices, soundFile, transcriptFile, mark: spoken }, progress = () => undefined) {
  const [file, markFile] = ['mp4', 'drawn'].map((ending) => soundFile.replace(/ogg$/, ending));
  const mark = createHash('sha256')
    .update(spoken)
    .update(await readFile(new URL(import.meta.url)))
    .digest('hex');
  if ((await readFile(markFile, 'utf8').catch(() => '')) === mark) return;
  for (const one of [markFile, file]) await rm(one, { force: true });
  const [turns, open] = [turnsOf(await readFile(transcriptFile, 'utf8')), await openings(soundFile)];
  const names = [...voices.keys()];
  const people = names.map((_, i) => PEOPLE[i % PEOPLE.length]);
  const [serif, sans] = [await typefaceOf('serif'), await typefaceOf('sans')];
  const drawn = new Map();
  const frameOf = (key) => {
    if (!drawn.has(key)) {
      const svg = key.startsWith('slide ') ? slide(key.slice(6), title, serif, sans) : scene(people, ...key.split(' ').map(Number));
      drawn.set(key, yuvOf(new Resvg(svg).render().pixels));
    }
    return drawn.get(key);
  };
  const partial = file.replace(/\.mp4$/, '.partial.mp4');
  const colours = ['-color_range', 'tv', '-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709'];
  const encoder = spawn(
    'ffmpeg',
    [
      ...['-v', 'error', '-y', '-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-s', `${PIXELS}x${LINES}`, '-r', String(MOVES), '-i', '-', '-i', soundFile],
      ...['-map', '0:v', '-map', '1:a', '-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '27', '-r', String(FPS), '-g', String(FPS), ...colours],
      ...['-c:a', 'aac', '-b:a', '96k', '-ar', '48000', '-movflags', '+faststart', partial],
    ],
    { stdio: ['pipe', 'ignore', 'inherit'] },
  );
  const closed = once(encoder, 'close');
  encoder.stdin.on('error', () => undefined); // told by how it ends
  const keys = plan(turns, names, open);
  for (const [i, key] of keys.entries()) {
    if (encoder.exitCode !== null) break;
    if (!encoder.stdin.write(frameOf(key))) await Promise.race([once(encoder.stdin, 'drain'), closed]);
    if (i % 1_000 === 0) progress(i / keys.length);
  }
  encoder.stdin.end();
  const [code] = await closed;
  if (code !== 0) throw new Error(`ffmpeg ended with ${code} while the picture of ${title} was drawn`);
  await rename(partial, file);
  await writeFile(markFile, mark);
}
