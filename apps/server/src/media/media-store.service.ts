import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { link, mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { ConflictException, Inject, Injectable } from '@nestjs/common';
import { CONFIG, type Config } from '../config/config.module.js';
import { type Picture, probe, type SoundTrack } from './probe.js';

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
/** Inside the media folder: what was brought in, what was made of it, what is listened to, what is on its way in, sent or fetched. */
type Folder = '.' | 'prepared' | 'aligning' | 'renders' | 'uploads' | 'fetching';
const PARTIAL = '.partial';
/** Nothing is written or waited for so long: what is still nobody's then was left behind. */
const LEFT_AFTER_MS = 15 * 60_000;

/** Sound files on disk. Names are made here; nothing from outside becomes a path. */
@Injectable()
export class MediaStore {
  constructor(@Inject(CONFIG) private readonly config: Config) {}

  /**
   * Takes away what a broken upload, or a program that was killed between a file and its row, left behind.
   * @param named names of all files that rows name, read after the folder was
   * @returns how many files were taken away
   */
  async sweep(named: () => Promise<ReadonlySet<string>>, nowMs = Date.now(), folder: Folder = '.', leftAfterMs = LEFT_AFTER_MS): Promise<number> {
    const within = join(this.config.mediaDir, folder);
    await mkdir(within, { recursive: true });
    const names = await readdir(within);
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
    return swept;
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
    await (sound.stays === true ? link : rename)(sound.path, join(this.config.mediaDir, file));
    return { file, type: (sound.picture === null ? undefined : known?.seen) ?? known?.type ?? 'application/octet-stream' };
  }

  async discard(sound: StagedSound): Promise<void> {
    if (sound.stays === true) return;
    if (sound.uploadId === undefined) await rm(sound.path, { force: true });
    // Gigabytes are not sent again because the transcript beside them was refused.
    else await rename(sound.path, this.pathOf(sound.uploadId, 'uploads')).catch(() => undefined);
  }

  async remove(file: string, folder: Folder = '.'): Promise<void> {
    await rm(this.pathOf(file, folder), { force: true });
  }

  pathOf(file: string, folder: Folder = '.'): string {
    return join(this.config.mediaDir, folder, file);
  }
}

async function staged(path: string, name: string): Promise<StagedSound> {
  const { durationMs, format, picture, soundTracks } = await probe(path, name);
  return { path, name, bytes: (await stat(path)).size, durationMs, type: format, picture, soundTracks };
}
