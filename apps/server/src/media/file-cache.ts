import { randomUUID } from 'node:crypto';
import { link, mkdir, readdir, rename, rm, stat, utimes } from 'node:fs/promises';
import { dirname, extname, join } from 'node:path';
import { log } from '../config/logger.js';
import type { ObjectStore } from './object-store.js';

/** Files that are used are linked here, so that nothing takes them away meanwhile. */
const HELD = 'held';
export const PARTIAL = '.partial';
/** Nobody uses a file for so long: whoever did was killed. */
const HELD_MOST_MS = 24 * 3_600_000;
const TRIM_EVERY_MS = 60_000;

/**
 * What a machine has of the store's files: each lies under its key, and the one that was not used for longest goes first when they are
 * too many. Several processes may share the folder.
 */
export class FileCache {
  private readonly coming = new Map<string, Promise<void>>();
  private trimmedMs = -Infinity;

  constructor(
    private readonly objects: ObjectStore,
    private readonly dir: string,
    private readonly mostBytes: number,
  ) {}

  /** Hands a file to somebody for as long as he works on it. @throws MissingFileError */
  async use<T>(key: string, act: (path: string) => Promise<T>, signal?: AbortSignal): Promise<T> {
    const held = join(this.dir, HELD, `${randomUUID()}${extname(key)}`);
    await mkdir(dirname(held), { recursive: true });
    try {
      // Another process may make room just between.
      for (let left = 3; ; left -= 1) {
        await this.bring(key, signal);
        try {
          await link(join(this.dir, key), held);
          break;
        } catch (error) {
          if ((error as NodeJS.ErrnoException).code !== 'ENOENT' || left === 1) throw error;
        }
      }
      return await act(held);
    } finally {
      await rm(held, { force: true });
    }
  }

  /** What was just put there need not be brought again. */
  async keep(key: string, path: string): Promise<void> {
    const to = join(this.dir, key);
    await mkdir(dirname(to), { recursive: true });
    await rename(path, to);
    await this.trim();
  }

  async forget(key: string): Promise<void> {
    await rm(join(this.dir, key), { force: true });
  }

  private async bring(key: string, signal?: AbortSignal): Promise<void> {
    const path = join(this.dir, key);
    const now = new Date();
    if (await succeeds(utimes(path, now, now))) return;
    // Two who want one file wait for one to come; where the first gives up, the other fetches it himself.
    const other = this.coming.get(key);
    if (other !== undefined && (await succeeds(other))) return;
    const coming = this.fetch(key, path, signal);
    this.coming.set(key, coming);
    try {
      await coming;
    } finally {
      if (this.coming.get(key) === coming) this.coming.delete(key);
    }
    await this.trim();
  }

  private async fetch(key: string, path: string, signal?: AbortSignal): Promise<void> {
    const partial = `${path}-${randomUUID()}${PARTIAL}`;
    await mkdir(dirname(path), { recursive: true });
    try {
      await this.objects.fetchTo(key, partial, signal);
      await rename(partial, path);
    } finally {
      await rm(partial, { force: true });
    }
  }

  /** Makes room, now and then: the longest unused first, and nothing that is not in the store. Whoever uses a file is not held up by it. */
  async trim(nowMs = Date.now()): Promise<void> {
    if (nowMs - this.trimmedMs < TRIM_EVERY_MS) return;
    this.trimmedMs = nowMs;
    await this.makeRoom(nowMs).catch((error: unknown) => log.warn({ error: String(error) }, 'no room was made for files of the store'));
  }

  private async makeRoom(nowMs: number): Promise<void> {
    for (const name of await readdir(join(this.dir, HELD)).catch(() => [])) {
      const path = join(this.dir, HELD, name);
      // A link has the times of its file: when it was made is told by the change of its node.
      const found = await stat(path).catch(() => null);
      if (found !== null && found.ctimeMs < nowMs - HELD_MOST_MS) await rm(path, { force: true });
    }
    const files: { key: string; bytes: number; usedMs: number }[] = [];
    for (const folder of ['.', 'prepared', 'renders'])
      for (const name of await readdir(join(this.dir, folder)).catch(() => [])) {
        const found = await stat(join(this.dir, folder, name)).catch(() => null);
        if (found?.isFile() === true && !name.endsWith(PARTIAL)) files.push({ key: join(folder, name), bytes: found.size, usedMs: found.mtimeMs });
      }
    let bytes = files.reduce((sum, one) => sum + one.bytes, 0);
    for (const one of files.sort((a, b) => a.usedMs - b.usedMs)) {
      if (bytes <= this.mostBytes) break;
      if (!(await this.objects.has(one.key))) continue;
      await this.forget(one.key);
      bytes -= one.bytes;
    }
    if (bytes > this.mostBytes)
      log.warn({ bytes, mostBytes: this.mostBytes }, 'files of this machine that are not in the store yet take more room than they may');
  }
}

const succeeds = (work: Promise<unknown>): Promise<boolean> =>
  work.then(
    () => true,
    () => false,
  );
