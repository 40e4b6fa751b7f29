// The made-up show that the stand-in podcast host has: spoken once, and described in the `show.json` beside its files.
import { mkdir, readFile, stat, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { speakRecording } from './speak.mjs';

const TEXTS = fileURLToPath(new URL('shows/', import.meta.url));
const DAY_MS = 86_400_000;

/** Newest first. The newest is held until somebody has the host publish it. */
export const SHOW = {
  slug: 'what-goes-down',
  client: 'Brackwater Drains',
  title: 'What Goes Down',
  about: 'Drains, and what people put into them.',
  hosts: ['Priya', 'Des', 'Colm'],
  episodes: [
    { number: '34', daysAgo: 1, held: true, summary: 'A green that sinks, a pipe that stops, and a bride who moves.' },
    { number: '33', daysAgo: 8, held: false, summary: 'Three packets that say flushable, and a bucket.' },
    { number: '32', daysAgo: 15, held: false, summary: 'A ring that went down a basin, or did it.' },
  ],
};

/** Speaks the show's episodes into `folder` and describes them. Skips what is there. */
export async function makeShows(folder, log = () => {}) {
  const at = join(folder, 'shows', SHOW.slug);
  await mkdir(at, { recursive: true });
  const episodes = [];
  for (const { number, daysAgo, ...rest } of SHOW.episodes) {
    const { title, soundFile, transcriptFile, lines } = await speakRecording(join(TEXTS, SHOW.slug, `${SHOW.slug}-${number}.txt`), at, log);
    const vtt = await readFile(transcriptFile, 'utf8');
    episodes.push({
      ...rest,
      guid: `${SHOW.slug}-${number}`,
      number,
      season: 3,
      title: title.replace(/^[^:]*: /, '').replace(/^./, (letter) => letter.toUpperCase()),
      publishedAt: new Date(Math.floor(Date.now() / DAY_MS - daysAgo) * DAY_MS + 6 * 3_600_000).toISOString(),
      seconds: Math.ceil(lastEnd(vtt)),
      sound: { file: basename(soundFile), type: 'audio/ogg', bytes: (await stat(soundFile)).size },
      transcript: { file: basename(transcriptFile), type: 'text/vtt' },
      chapters: chaptersOf(vtt, lines),
      guests: [],
    });
  }
  const { title, about, hosts } = SHOW;
  await writeFile(join(at, 'show.json'), JSON.stringify({ title, about, hosts, ttlMinutes: 60, pageSize: 20, episodes }, null, 2));
}

const secondsOf = (stamp) => stamp.split(':').reduce((sum, part) => sum * 60 + Number(part), 0);
const cuesOf = (vtt) => [...vtt.matchAll(/^([\d:.]+) --> ([\d:.]+)$/gm)].map(([, from, to]) => [secondsOf(from), secondsOf(to)]);
const lastEnd = (vtt) => cuesOf(vtt).at(-1)[1];

/** Three parts: the greeting, what it is about, and how it ends. */
function chaptersOf(vtt, lines) {
  const starts = cuesOf(vtt).map(([from]) => from);
  const spoken = lines.filter((line) => line.text !== undefined);
  const turn = (nth) => spoken.findIndex((line, i) => spoken.slice(0, i + 1).filter((one, k) => one.speaker !== spoken[k - 1]?.speaker).length === nth);
  return [
    { startTime: 0, title: 'Hello' },
    { startTime: starts[turn(3)] ?? 10, title: 'The story' },
    { startTime: starts.at(-4) ?? 60, title: 'What to take from it' },
  ];
}
