import { execFile } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { promisify } from 'node:util';
import { Inject, Injectable, type OnModuleInit, UnprocessableEntityException } from '@nestjs/common';
import { CONFIG, type Config } from '../config/config.module.js';

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

/** Sound files on disk. Names are made here; nothing from outside becomes a path. */
@Injectable()
export class MediaStore implements OnModuleInit {
  constructor(@Inject(CONFIG) private readonly config: Config) {}

  /** Files that a broken upload left behind are swept away at start. */
  async onModuleInit(): Promise<void> {
    await mkdir(this.config.mediaDir, { recursive: true });
    const old = Date.now() - 86_400_000;
    for (const name of await readdir(this.config.mediaDir)) {
      const path = join(this.config.mediaDir, name);
      if (name.endsWith(PARTIAL) && (await stat(path)).mtimeMs < old) await rm(path, { force: true });
    }
  }

  /**
   * Streams a sound to disk, never holding it in memory, and looks what it is.
   * @throws UnprocessableEntityException when ffprobe finds no sound in it; the file is gone then
   */
  async stage(stream: Readable, name: string): Promise<StagedSound> {
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
  const args = [
    '-v',
    'error',
    '-select_streams',
    'a:0',
    '-show_entries',
    'format=duration,format_name:stream=codec_type',
    '-of',
    'json',
    '-protocol_whitelist',
    'file',
    path,
  ];
  let output: string;
  try {
    ({ stdout: output } = await run('ffprobe', args, { timeout: 60_000 }));
  } catch {
    throw new UnprocessableEntityException(`“${name}” is no sound file that can be read.`);
  }
  const found = JSON.parse(output) as { format?: { duration?: string; format_name?: string }; streams?: unknown[] };
  const seconds = Number(found.format?.duration);
  if ((found.streams ?? []).length === 0 || !Number.isFinite(seconds) || seconds <= 0) throw new UnprocessableEntityException(`“${name}” holds no sound.`);
  return { durationMs: Math.round(seconds * 1_000), format: found.format?.format_name ?? '' };
}
