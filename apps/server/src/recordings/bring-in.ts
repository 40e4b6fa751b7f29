import type { Readable } from 'node:stream';
import { BadRequestException, HttpException, PayloadTooLargeException } from '@nestjs/common';
import busboy from 'busboy';
import type { Request } from 'express';
import type { StagedSound } from '../media/media-store.service.js';
import type { PreparedTranscript, UntimedTranscript } from '../text/prepare-task.js';

/** A transcript that was read. */
export type Talk = { readonly kind: 'prepared'; readonly transcript: PreparedTranscript } | { readonly kind: 'untimed'; readonly text: UntimedTranscript };

export interface BroughtIn {
  readonly title: string | null;
  readonly transcript: NamedFile | null;
  readonly sound: StagedSound | null;
}

interface NamedFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** What was brought in, its transcript perhaps read already. */
export interface ToStore extends Omit<BroughtIn, 'transcript'> {
  readonly transcript: NamedFile | { readonly name: string; readonly talk: Talk } | null;
}

/** 200,000 cues are about 20 MB; a transcript beyond this is something else. */
const LARGEST_TRANSCRIPT = 64 * 1_024 * 1_024;
const LARGEST_SOUND = 12 * 1_024 ** 3;
const LARGEST_REQUEST = LARGEST_SOUND + LARGEST_TRANSCRIPT + 1_000_000;

/** How the sound of a request comes onto the disk. */
export interface Staging {
  /** As a part of the request. */
  stage(stream: Readable, name: string): Promise<StagedSound>;
  /** As an upload that came in pieces before. */
  take(uploadId: string): Promise<StagedSound>;
  discard(sound: StagedSound): Promise<void>;
}

/**
 * Reads a multipart request with the fields `title`, `transcript` and `sound` or `uploaded`, each at most once. The sound goes
 * straight to disk. The first thing that is wrong ends it at once: nothing more is read, and what was staged is given to `discard`.
 * @throws BadRequestException, PayloadTooLargeException, or what `stage` throws
 */
export async function readBroughtIn(request: Request, staging: Staging): Promise<BroughtIn> {
  if (Number(request.headers['content-length'] ?? 0) > LARGEST_REQUEST) throw new PayloadTooLargeException('The files are over 12 GB together.');
  const reader = new FilesReader(request, staging);
  try {
    return await reader.read();
  } catch (error) {
    await reader.giveUp();
    throw error instanceof HttpException ? error : new BadRequestException('The upload was cut short.');
  }
}

class FilesReader {
  private readonly parser: busboy.Busboy;
  private readonly streams: Readable[] = [];
  private title: string | null = null;
  private transcript: Promise<{ name: string; bytes: Uint8Array }> | null = null;
  private sound: Promise<StagedSound> | null = null;
  private uploadId: string | null = null;

  constructor(
    private readonly request: Request,
    private readonly staging: Staging,
  ) {
    try {
      const limits = { files: 3, fields: 4, fieldSize: 2_000, fileSize: LARGEST_SOUND };
      this.parser = busboy({ headers: request.headers, defParamCharset: 'utf8', limits });
    } catch {
      throw new BadRequestException('Send the files as a form (multipart/form-data).');
    }
  }

  async read(): Promise<BroughtIn> {
    await new Promise<void>((resolve, reject) => {
      this.parser.on('field', (name, value) => {
        if (name === 'uploaded') {
          if (this.uploadId !== null) reject(new BadRequestException('There are two sound files. Send one.'));
          this.uploadId = value;
        } else if (name !== 'title') reject(new BadRequestException(`“${name.slice(0, 40)}” is not a field of this form.`));
        else if (this.title !== null) reject(new BadRequestException('There are two titles. Send one.'));
        else
          this.title = value
            .replace(/[\0\p{Surrogate}]/gu, '')
            .trim()
            .slice(0, 160);
      });
      this.parser.on('file', (field, stream, { filename }) => {
        this.streams.push(stream);
        const name = (filename ?? 'file').replace(/[\0\p{Surrogate}]/gu, '').slice(0, 255);
        stream.on('limit', () => reject(new PayloadTooLargeException(`“${name}” is over 12 GB.`)));
        this.takeFile(field, stream, name).catch(reject);
      });
      for (const limit of ['filesLimit', 'fieldsLimit'] as const)
        this.parser.on(limit, () => reject(new BadRequestException('Send one transcript, one sound file and one title at most.')));
      this.parser.on('error', () => reject(new BadRequestException('The upload was cut short.')));
      this.parser.on('close', resolve);
      this.request.on('aborted', () => reject(new BadRequestException('The upload was cut short.')));
      this.request.on('error', () => reject(new BadRequestException('The upload was cut short.')));
      this.request.pipe(this.parser);
    });
    if (this.uploadId !== null) {
      if (this.sound !== null) throw new BadRequestException('There are two sound files. Send one.');
      // Last, once all that could be wrong with the request has been looked at.
      this.sound = this.staging.take(this.uploadId);
    }
    return { title: this.title === '' ? null : this.title, transcript: await this.transcript, sound: await this.sound };
  }

  /** Ends every part where it is, and hands over what was staged. */
  async giveUp(): Promise<void> {
    this.request.unpipe(this.parser);
    for (const stream of this.streams) stream.destroy(new Error('given up'));
    this.parser.destroy();
    await this.transcript?.catch(() => undefined);
    const staged = await this.sound?.catch(() => null);
    if (staged != null) await this.staging.discard(staged);
  }

  private async takeFile(field: string, stream: Readable, name: string): Promise<void> {
    stream.on('error', () => undefined); // whoever reads it hears of it too
    if (field === 'transcript') {
      if (this.transcript !== null) throw new BadRequestException('There are two transcripts. Send one.');
      this.transcript = readAll(stream, name, Number(this.request.headers['content-length'] ?? Infinity));
      await this.transcript;
    } else if (field === 'sound') {
      if (this.sound !== null) throw new BadRequestException('There are two sound files. Send one.');
      this.sound = this.staging.stage(stream, name);
      await this.sound;
    } else throw new BadRequestException(`“${field.slice(0, 40)}” is not a file of this form.`);
  }
}

/**
 * A buffer of its own, so that it can move into a thread without being copied, and be emptied there. It is as long as it can
 * get from the start: the system gives memory for a page only when something is written there.
 */
async function readAll(stream: Readable, name: string, requestBytes: number): Promise<{ name: string; bytes: Uint8Array }> {
  const most = Math.min(LARGEST_TRANSCRIPT, requestBytes);
  const bytes = new Uint8Array(new ArrayBuffer(most, { maxByteLength: most }), 0, most);
  let size = 0;
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    if (size + chunk.length > bytes.length) throw new PayloadTooLargeException(`“${name}” is over 64 MB, too large for a transcript.`);
    bytes.set(chunk, size);
    size += chunk.length;
  }
  return { name, bytes: bytes.subarray(0, size) };
}
