import { execFile } from 'node:child_process';
import { copyFile, mkdir, mkdtemp, readdir, rm, utimes, writeFile } from 'node:fs/promises';
import { createServer, type IncomingMessage, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { expect } from 'vitest';
import { settings } from '../../../scripts/lib/config.mjs';
import { serviceEnv, startService } from '../../../scripts/lib/services.mjs';
import { PodcastHost } from '../../standins/dist/podcast-host.js';
import { type Answer, talk, until, World } from './world.js';

type Worker = ReturnType<typeof startService>;

export const episode = (slug: string, n: number, fields: object = {}) => ({
  guid: `${slug}-${n}`,
  number: String(n),
  season: 1,
  title: `Night ${n}`,
  summary: 'What happens to a cold chimney.',
  publishedAt: new Date(Date.UTC(2026, 0, n)).toISOString(),
  seconds: 60,
  sound: { file: `night-${n}.ogg`, type: 'audio/ogg', bytes: 1_000 },
  transcript: { file: 'talk.vtt', type: 'text/vtt' },
  chapters: [
    { startTime: 0, title: 'Hello' },
    { startTime: 30.5, title: 'The flue' },
  ],
  guests: ['Odile Farr'],
  held: false,
  ...fields,
});

/** The made-up podcast host in this process, which sees what it is asked, with an app and a worker that may ask it. */
export class PodcastWorld {
  readonly asked: { readonly method: string; readonly url: string; readonly range: string | undefined; readonly ifNoneMatch: string | undefined }[] = [];
  world!: World;
  worker!: Worker;
  origin = '';
  private server!: Server;

  private constructor(
    readonly folder: string,
    readonly host: PodcastHost,
  ) {}

  static async make(): Promise<PodcastWorld> {
    const folder = await mkdtemp(join(tmpdir(), 'sift-reel-feeds-'));
    // A minute of noise, which Opus does not make small.
    await promisify(execFile)('ffmpeg', [
      ...['-v', 'error', '-f', 'lavfi', '-i', 'anoisesrc=d=60:a=0.1:r=48000', '-c:a', 'libopus', '-b:a', '96k', '-vbr', 'off', join(folder, 'talk.ogg')],
    ]);
    await writeFile(join(folder, 'talk.vtt'), talk(1));
    await writeFile(join(folder, 'talk.txt'), 'It never draws on the first night. The chimney is cold, and cold air is heavy.');
    await writeFile(join(folder, 'broken.vtt'), 'WEBVTT\n\nnonsense --> 00:00:01.000\nhello');
    await writeFile(join(folder, 'page.mp3'), '<html>nothing to hear</html>');
    const old = new Date(Date.now() - 86_400_000);
    await utimes(join(folder, 'talk.ogg'), old, old);
    const here = new PodcastWorld(folder, new PodcastHost(folder, 150_000));
    await here.open();
    return here;
  }

  private async open(): Promise<void> {
    this.server = createServer((request: IncomingMessage, response) => {
      const { range, 'if-none-match': ifNoneMatch } = request.headers;
      this.asked.push({ method: request.method!, url: request.url!, range, ifNoneMatch });
      void this.host.answer(request, response).catch(() => response.destroy());
    });
    await new Promise<void>((resolve) => {
      this.server.listen(0, '127.0.0.1', resolve);
    });
    this.origin = `http://127.0.0.1:${(this.server.address() as { port: number }).port}`;
    process.env['SIFT_REEL_FETCH_FROM'] = this.origin;
    this.world = await World.make();
    this.worker = this.startWorker();
    await this.worker.ready;
  }

  async close(): Promise<void> {
    delete process.env['SIFT_REEL_FETCH_FROM'];
    await this.worker.stop();
    await this.world.close();
    this.server.closeAllConnections();
    this.server.close();
    await rm(this.folder, { recursive: true, force: true });
  }

  startWorker(): Worker {
    const env = serviceEnv(settings('test'), process.env['SIFT_REEL_DATABASE_URL']!, { SIFT_REEL_LOG_LEVEL: 'silent', SIFT_REEL_FETCH_FROM: this.origin });
    return startService('worker', env, { quiet: true });
  }

  /** A show of its own, so that no test publishes for another. @returns its feed's address */
  async show(slug: string, episodes: readonly { readonly sound: { readonly file: string } }[], fields: object = {}): Promise<string> {
    const at = join(this.folder, slug);
    await mkdir(at, { recursive: true });
    for (const file of ['talk.vtt', 'talk.txt', 'broken.vtt', 'page.mp3']) await copyFile(join(this.folder, file), join(at, file));
    for (const { sound } of episodes) if (sound.file.endsWith('.ogg')) await copyFile(join(this.folder, 'talk.ogg'), join(at, sound.file));
    const head = { title: `Show ${slug}`, about: 'Made up', hosts: ['Nuala'], ttlMinutes: 45, pageSize: 2 };
    await writeFile(join(at, 'show.json'), JSON.stringify({ ...head, episodes, ...fields }));
    return `${this.origin}/shows/${slug}/feed.xml`;
  }

  publish(slug: string): Promise<unknown> {
    return fetch(`${this.origin}/shows/${slug}/publish`, { method: 'PUT' });
  }

  /** What the host does badly, as long as `act` takes. */
  async withManner(manner: PodcastHost['manner'], act: () => Promise<void>): Promise<void> {
    this.host.manner = manner;
    try {
      await act();
    } finally {
      this.host.manner = 'well';
    }
  }

  async feedOf(feedId: string): Promise<Answer['body']> {
    return (await this.world.owner.get('feeds')).body.find((one: { id: string }) => one.id === feedId);
  }
  async episodesOf(feedId: string): Promise<Answer['body'][]> {
    return (await this.world.owner.get(`feeds/${feedId}/episodes`)).body;
  }
  settled(feedId: string): Promise<Answer['body']> {
    return until(
      () => this.feedOf(feedId),
      (one) => !one.reading,
    );
  }
  async readAgain(feedId: string): Promise<Answer['body']> {
    expect((await this.world.owner.post(`feeds/${feedId}/reading`)).status).toBe(200);
    return this.settled(feedId);
  }
  async followed(url: string, rule = 'list', clientId?: string): Promise<Answer['body']> {
    const { status, body, text } = await this.world.owner.post(`clients/${clientId ?? (await this.world.client())}/feeds`, { url, rule });
    expect(status, text).toBe(201);
    return this.settled(body.id);
  }

  async recording(recordingId: string): Promise<Answer['body']> {
    return (await this.world.read(`recordings/${recordingId}`)).body;
  }
  fetched(recordingId: string): Promise<Answer['body']> {
    return until(
      () => this.recording(recordingId),
      ({ fetch: { state } }) => !['waiting', 'running'].includes(state),
    );
  }
  /** What is half fetched, or was. */
  readonly leftovers = (): Promise<string[]> => readdir(join(process.env['SIFT_REEL_MEDIA_DIR']!, 'fetching')).catch(() => []);
  /** Ranges in which sound was asked for. */
  rangesAsked(): (string | undefined)[] {
    return this.asked.filter(({ url }) => url.endsWith('.ogg')).map(({ range }) => range);
  }
}
