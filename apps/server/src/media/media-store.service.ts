import { execFile } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { promisify } from 'node:util';
import { Inject, Injectable, UnprocessableEntityException } from '@nestjs/common';
import { CONFIG, type Config } from '../config/config.module.js';
import { SOUND_INPUT } from './ffmpeg.js';

const run = promisify(execFile);

/** A sound file on its way in: on disk under a passing name, measured, not yet anybody's. */
export interface StagedSound {
  readonly path: string;
  readonly name: string;
  readonly bytes: number;
  readonly durationMs: number;
  readonly type: string;
}

const TYPES: Readonly<Record<string, { type: string; ending: string }>> = {
  ogg: { type: 'audio/ogg', ending: 'ogg' },
  mp3: { type: 'audio/mpeg', ending: 'mp3' },
  wav: { type: 'audio/wav', ending: 'wav' },
  flac: { type: 'audio/flac', ending: 'flac' },
  'mov,mp4,m4a,3gp,3g2,mj2': { type: 'audio/mp4', ending: 'm4a' },
  'matroska,webm': { type: 'audio/webm', ending: 'webm' },
  aac: { type: 'audio/aac', ending: 'aac' },
};
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
  async sweep(named: () => Promise<ReadonlySet<string>>, nowMs = Date.now()): Promise<number> {
    await mkdir(this.config.mediaDir, { recursive: true });
    const names = await readdir(this.config.mediaDir);
    const kept = await named();
    let swept = 0;
    for (const name of names) {
      if (kept.has(name)) continue;
      const path = join(this.config.mediaDir, name);
      const found = await stat(path).catch(() => null);
      if (found === null || !found.isFile() || Math.max(found.mtimeMs, found.ctimeMs) > nowMs - LEFT_AFTER_MS) continue;
      await rm(path, { force: true });
      swept += 1;
    }
    return swept;
  }

  /**
   * Streams a sound to disk, never holding it in memory, and looks what it is.
   * @throws UnprocessableEntityException when ffprobe finds no sound in it; the file is gone then
   */
  async stage(stream: Readable, name: string): Promise<StagedSound> {
    await mkdir(this.config.mediaDir, { recursive: true });
    const path = join(this.config.mediaDir, `${randomUUID()}${PARTIAL}`);
    try {
      await pipeline(stream, createWriteStream(path));
      const { durationMs, format } = await probe(path, name);
      return { path, name, bytes: (await stat(path)).size, durationMs, type: format };
    } catch (error) {
      await rm(path, { force: true });
      throw error;
    }
  }

  /** Gives a staged file its lasting name. @returns the name inside the store, and its media type */
  async keep(sound: StagedSound): Promise<{ file: string; type: string }> {
    const known = TYPES[sound.type];
    const file = `${randomUUID()}.${known?.ending ?? 'sound'}`;
    await rename(sound.path, join(this.config.mediaDir, file));
    return { file, type: known?.type ?? 'application/octet-stream' };
  }

  async discard(sound: StagedSound): Promise<void> {
    await rm(sound.path, { force: true });
  }

  async remove(file: string): Promise<void> {
    await rm(join(this.config.mediaDir, file), { force: true });
  }

  pathOf(file: string): string {
    return join(this.config.mediaDir, file);
  }
}

async function probe(path: string, name: string): Promise<{ durationMs: number; format: string }> {
  const args = ['-v', 'error', ...SOUND_INPUT, '-select_streams', 'a:0'];
  args.push('-show_entries', 'format=duration,format_name:stream=codec_type', '-of', 'json', path);
  let output: string;
  try {
    ({ stdout: output } = await run('ffprobe', args, { timeout: 60_000, maxBuffer: 1_000_000, killSignal: 'SIGKILL' }));
  } catch {
    throw new UnprocessableEntityException(`“${name}” is no sound file that can be read.`);
  }
  const found = JSON.parse(output) as { format?: { duration?: string; format_name?: string }; streams?: unknown[] };
  const seconds = Number(found.format?.duration);
  if ((found.streams ?? []).length === 0 || !Number.isFinite(seconds) || seconds <= 0) throw new UnprocessableEntityException(`“${name}” holds no sound.`);
  return { durationMs: Math.round(seconds * 1_000), format: found.format?.format_name ?? '' };
}
