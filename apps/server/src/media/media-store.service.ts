import { randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { link, mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { ConflictException, Injectable, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import type { Response } from 'express';
import type { Config } from '../config/config.module.js';
import { log } from '../config/logger.js';
import type { Database } from '../database/database.service.js';
import { FileCache, PARTIAL } from './file-cache.js';
import { MissingFileError } from './store-errors.js';
import type { ObjectStore, StoredObject } from './object-store.js';
import { type Picture, probe, type SoundTrack } from './probe.js';
import { sendObject, type Sending } from './send-object.js';

/** A sound file on its way in: on disk under a passing name, measured, not yet anybody's. */
export interface StagedSound {
  readonly path: string;
  readonly name: string;
  readonly bytes: number;
  readonly durationMs: number;
  readonly type: string;
  /** Null for sound alone. */
  readonly picture: Picture | null;
  /** None for a picture without sound. */
  readonly soundTracks: readonly SoundTrack[];
  /** The upload that it is; it goes back there where it is discarded. */
  readonly uploadId?: string;
  /** It keeps its passing name beside the lasting one, until whoever put it there takes it away. */
  readonly stays?: true;
}

const TYPES: Readonly<Record<string, { type: string; ending: string; seen?: string }>> = {
  ogg: { type: 'audio/ogg', ending: 'ogg' },
  mp3: { type: 'audio/mpeg', ending: 'mp3' },
  wav: { type: 'audio/wav', ending: 'wav' },
  flac: { type: 'audio/flac', ending: 'flac' },
  'mov,mp4,m4a,3gp,3g2,mj2': { type: 'audio/mp4', ending: 'm4a', seen: 'video/mp4' },
  'matroska,webm': { type: 'audio/webm', ending: 'webm', seen: 'video/webm' },
  aac: { type: 'audio/aac', ending: 'aac' },
};
/** Files that stay: what was brought in, what was made of it, what is handed over. They lie in the store. */
type Lasting = '.' | 'prepared' | 'renders';
/** What is listened to, on its way in, sent or fetched: one machine's own. */
type Passing = 'aligning' | 'uploads' | 'fetching';
type Folder = Lasting | Passing;
const isLasting = (folder: Folder): folder is Lasting => folder === '.' || folder === 'prepared' || folder === 'renders';
/** Whose files these are: see `claim`. */
const MARK = 'sift-reel.json';
/** Nothing is written or waited for so long: what is still nobody's then was left behind. */
const LEFT_AFTER_MS = 15 * 60_000;

/**
 * Where media lie: in a folder, or in a bucket of object storage with the folder as what this machine has of it. Names are made here;
 * nothing from outside becomes a path or a key.
 */
@Injectable()
export class MediaStore implements OnModuleInit, OnModuleDestroy {
  private readonly cache: FileCache | null;
  private claimed: Promise<void> | null = null;

  /** @param objects null where media live in the folder */
  constructor(
    private readonly config: Config,
    private readonly database: Database,
    private readonly objects: ObjectStore | null,
  ) {
    this.cache = objects === null ? null : new FileCache(objects, config.mediaDir, config.store!.cacheBytes);
  }

  async onModuleInit(): Promise<void> {
    await this.mustBeOurs();
  }

  onModuleDestroy(): void {
    this.objects?.close();
  }

  /**
   * Two databases with one place in a bucket would sweep away each other's files: the first to come writes its name there. Looked at
   * before anything else is done with the bucket.
   * @throws Error when it is another's
   */
  private async mustBeOurs(): Promise<void> {
    if (this.objects !== null) await (this.claimed ??= this.claim(this.objects));
  }

  private async claim(objects: ObjectStore): Promise<void> {
    const [own] = await this.database.rows<{ id: string }>('SELECT id FROM installation');
    const mark = JSON.stringify({ installation: own!.id });
    if ((await objects.claim(MARK, mark)) !== mark)
      throw new Error(`The bucket has the files of another database of Sift Reel. Set SIFT_REEL_S3_PREFIX, or take ${MARK} away if that one is gone.`);
  }

  /**
   * Takes away what a broken upload, or a program that was killed between a file and its row, left behind; and brings into the store
   * what lies in the folder from before there was one.
   * @param named names of all files that rows name, read after the folder was
   * @returns how many files were taken away
   */
  async sweep(named: () => Promise<ReadonlySet<string>>, nowMs = Date.now(), folder: Folder = '.', leftAfterMs = LEFT_AFTER_MS): Promise<number> {
    await this.mustBeOurs();
    const within = join(this.config.mediaDir, folder);
    await mkdir(within, { recursive: true });
    const names = await readdir(within);
    const stored = this.objects !== null && isLasting(folder) ? await this.stored(this.objects, folder) : [];
    const kept = await named();
    let swept = 0;
    for (const name of names) {
      if (kept.has(name)) continue;
      const path = join(within, name);
      const found = await stat(path).catch(() => null);
      if (found === null || (folder === '.' && !found.isFile()) || Math.max(found.mtimeMs, found.ctimeMs) > nowMs - leftAfterMs) continue;
      await rm(path, { force: true, recursive: true });
      swept += 1;
    }
    if (this.objects === null || !isLasting(folder)) return swept;
    for (const { key, changedMs } of stored)
      if (!kept.has(nameOf(key, folder)) && changedMs <= nowMs - leftAfterMs) {
        await this.objects.remove(key);
        swept += 1;
      }
    const there = new Set(stored.map(({ key }) => key));
    for (const name of names) if (kept.has(name) && !there.has(join(folder, name))) await this.bringOver(this.objects, join(folder, name));
    await this.objects.sweepBrokenOff(nowMs);
    await this.cache?.trim();
    return swept;
  }

  private async bringOver(objects: ObjectStore, key: string): Promise<void> {
    if (await objects.has(key)) return; // it was put there since
    await objects.put(key, join(this.config.mediaDir, key));
    log.info({ key }, 'a file of this machine was put into the store');
  }

  private async stored(objects: ObjectStore, folder: Lasting): Promise<StoredObject[]> {
    const found: StoredObject[] = [];
    for await (const one of objects.list(folder === '.' ? '' : `${folder}/`))
      if (one.key !== MARK && (folder !== '.' || !one.key.includes('/'))) found.push(one);
    return found;
  }

  /**
   * Streams a sound to disk, never holding it in memory, and looks what it is.
   * @throws UnprocessableEntityException when ffprobe finds neither sound nor picture in it; the file is gone then
   */
  async stage(stream: Readable, name: string): Promise<StagedSound> {
    await mkdir(this.config.mediaDir, { recursive: true });
    const path = join(this.config.mediaDir, `${randomUUID()}${PARTIAL}`);
    try {
      await pipeline(stream, createWriteStream(path));
      return await staged(path, name);
    } catch (error) {
      await rm(path, { force: true });
      throw error;
    }
  }

  /**
   * Takes a complete upload and looks what it is. Of two who bring it in at once, one has it.
   * @throws ConflictException when it is gone; UnprocessableEntityException when ffprobe finds neither sound nor picture in it; it is gone then, too
   */
  async stageUploaded(uploadId: string, name: string): Promise<StagedSound> {
    const path = join(this.config.mediaDir, `${randomUUID()}${PARTIAL}`);
    const from = this.pathOf(uploadId, 'uploads');
    await rename(from, path).catch(() => {
      throw new ConflictException(`“${name}” was brought in already.`);
    });
    try {
      return { ...(await staged(path, name)), uploadId };
    } catch (error) {
      await rm(path, { force: true });
      throw error;
    }
  }

  /**
   * Looks what a file is that was fetched whole. It stays where it is, so that a program that is killed before the rows stand need not
   * fetch it again.
   * @throws UnprocessableEntityException when ffprobe finds neither sound nor picture in it
   */
  async stageFetched(file: string, name: string): Promise<StagedSound> {
    return { ...(await staged(this.pathOf(file, 'fetching'), name)), stays: true };
  }

  /** Gives a staged file its lasting name. @returns the name inside the store, and its media type */
  async keep(sound: StagedSound): Promise<{ file: string; type: string }> {
    const known = TYPES[sound.type];
    const file = `${randomUUID()}.${known?.ending ?? 'sound'}`;
    await this.objects?.put(file, sound.path);
    await (sound.stays === true ? link : rename)(sound.path, this.pathOf(file));
    await this.cache?.trim();
    return { file, type: (sound.picture === null ? undefined : known?.seen) ?? known?.type ?? 'application/octet-stream' };
  }

  /** Gives a file that was made its lasting name. */
  async put(path: string, file: string, folder: Lasting, signal?: AbortSignal): Promise<void> {
    const key = join(folder, file);
    await this.objects?.put(key, path, signal);
    if (this.cache !== null) return this.cache.keep(key, path);
    await mkdir(this.pathOf('.', folder), { recursive: true });
    await rename(path, this.pathOf(file, folder));
  }

  /** Hands a lasting file to somebody for as long as he works on it. @throws MissingFileError */
  async use<T>(file: string, folder: Lasting, act: (path: string) => Promise<T>, signal?: AbortSignal): Promise<T> {
    if (this.cache !== null) return this.cache.use(join(folder, file), act, signal);
    const path = this.pathOf(file, folder);
    if ((await stat(path).catch(() => null)) === null) throw new MissingFileError(`there is no ${join(folder, file)}`);
    return act(path);
  }

  /** A lasting file to be read from its beginning to its end. @throws MissingFileError */
  async open(file: string, folder: Lasting): Promise<{ readonly bytes: number; readonly read: () => Promise<Readable> }> {
    const { objects } = this;
    const [key, path] = [join(folder, file), this.pathOf(file, folder)];
    if (objects !== null) return { bytes: await objects.sizeOf(key), read: async () => (await objects.read(key)).stream };
    const found = await stat(path).catch(() => null);
    if (found === null) throw new MissingFileError(`there is no ${key}`);
    return { bytes: found.size, read: () => Promise.resolve(createReadStream(path)) };
  }

  /** Answers with a lasting file, or with the range of it that was asked for; where browsers reach the store, by sending them there. */
  async send(response: Response, file: string, folder: Lasting, { type, cacheControl, disposition }: Sending): Promise<void> {
    if (this.objects === null) {
      response.sendFile(this.pathOf(file, folder), {
        headers: { 'Content-Type': type, 'Cache-Control': cacheControl, ...(disposition === undefined ? {} : { 'Content-Disposition': disposition }) },
      });
      return;
    }
    const key = join(folder, file);
    const address = await this.objects.addressOf(key, { type, disposition });
    // Signed anew each time it is asked for, so that nobody's right outlives him by long.
    if (address !== null) return response.setHeader('Cache-Control', 'private, no-store').redirect(307, address);
    await sendObject(response, this.objects, key, { type, cacheControl, disposition });
  }

  async discard(sound: StagedSound): Promise<void> {
    if (sound.stays === true) return;
    if (sound.uploadId === undefined) await rm(sound.path, { force: true });
    // Gigabytes are not sent again because the transcript beside them was refused.
    else await rename(sound.path, this.pathOf(sound.uploadId, 'uploads')).catch(() => undefined);
  }

  async remove(file: string, folder: Folder = '.'): Promise<void> {
    // No row names it any more: what the store does not take away now is swept.
    if (isLasting(folder))
      await this.objects?.remove(join(folder, file)).catch((error: unknown) => log.warn({ file, error: String(error) }, 'the store kept a file'));
    await rm(this.pathOf(file, folder), { force: true });
  }

  /** Where a file of this machine lies: one on its way in or being made. */
  pathOf(file: string, folder: Folder = '.'): string {
    return join(this.config.mediaDir, folder, file);
  }
}

const nameOf = (key: string, folder: Lasting): string => (folder === '.' ? key : key.slice(folder.length + 1));

async function staged(path: string, name: string): Promise<StagedSound> {
  const { durationMs, format, picture, soundTracks } = await probe(path, name);
  return { path, name, bytes: (await stat(path)).size, durationMs, type: format, picture, soundTracks };
}
