import { randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { settings } from '../../../scripts/lib/config.mjs';
import { serviceEnv, startService } from '../../../scripts/lib/services.mjs';
import { ObjectStoreStandIn } from '../../standins/dist/object-store.js';
import { query, World } from './world.js';

export type Worker = ReturnType<typeof startService>;
const [BUCKET, CREDENTIALS] = ['reels', { keyId: 'made-up-key', secret: 'made up and never shown' }];

/** Storage on loopback, an API and workers, each with a folder of its own as if on machines of their own. */
export class StoreWorld {
  world!: World;
  endpoint = '';
  private server!: Server;
  private readonly before = { ...process.env };
  private readonly workers: Worker[] = [];

  private constructor(
    readonly folder: string,
    readonly store: ObjectStoreStandIn,
    readonly prefix: string,
  ) {}

  static async make(extra: Record<string, string> = {}): Promise<StoreWorld> {
    const folder = await mkdtemp(join(tmpdir(), 'sift-reel-store-'));
    const made = new StoreWorld(folder, new ObjectStoreStandIn(join(folder, 'bucket'), BUCKET, CREDENTIALS, 'http://sift-reel.example'), `${randomUUID()}/`);
    made.server = createServer((request, response) => void made.store.answer(request, response));
    await new Promise<void>((resolve) => {
      made.server.listen(0, '127.0.0.1', resolve);
    });
    made.endpoint = `http://127.0.0.1:${(made.server.address() as AddressInfo).port}`;
    await query('TRUNCATE clients CASCADE'); // what files before this one left, whose media and work lie elsewhere
    Object.assign(process.env, made.env('api'), extra);
    made.world = await World.make();
    return made;
  }

  /** What a part of the product is told that has the folder of this name. */
  env(name: string): Record<string, string> {
    return {
      SIFT_REEL_MEDIA_DIR: join(this.folder, name),
      SIFT_REEL_S3_ENDPOINT: this.endpoint,
      SIFT_REEL_S3_BUCKET: BUCKET,
      SIFT_REEL_S3_PREFIX: this.prefix,
      SIFT_REEL_S3_KEY_ID: CREDENTIALS.keyId,
      SIFT_REEL_S3_SECRET: CREDENTIALS.secret,
    };
  }

  async worker(name: string): Promise<Worker> {
    const env = serviceEnv(settings('test'), process.env['SIFT_REEL_DATABASE_URL']!, { SIFT_REEL_LOG_LEVEL: 'silent', ...this.env(name) });
    const worker = startService('worker', env, { quiet: true });
    this.workers.push(worker);
    await worker.ready;
    return worker;
  }

  /** Keys that are there, without what they all begin with. */
  async keys(): Promise<string[]> {
    return (await this.store.keys()).filter((key) => key.startsWith(this.prefix)).map((key) => key.slice(this.prefix.length));
  }

  async close(): Promise<void> {
    for (const worker of this.workers) await worker.stop();
    await this.world.close();
    for (const name of Object.keys(this.env(''))) {
      if (this.before[name] === undefined) delete process.env[name];
      else process.env[name] = this.before[name];
    }
    this.server.closeAllConnections();
    this.server.close();
    await rm(this.folder, { recursive: true, force: true });
  }
}
