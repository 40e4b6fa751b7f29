import type { Readable } from 'node:stream';
import { BadRequestException, PayloadTooLargeException } from '@nestjs/common';
import busboy from 'busboy';
import type { Request } from 'express';
import type { StagedSound } from './media-store.service.js';

export interface BroughtIn {
  readonly title: string | null;
  readonly transcript: { readonly name: string; readonly bytes: Buffer } | null;
  readonly sound: StagedSound | null;
}

/** 200,000 cues are about 20 MB; a transcript beyond this is something else. */
const LARGEST_TRANSCRIPT = 64 * 1_024 * 1_024;
const LARGEST_SOUND = 12 * 1_024 ** 3;

/**
 * Reads a multipart request with the fields `title`, `transcript` and `sound`, each at most once. The sound goes straight
 * to disk. When anything fails, a sound that was already staged is given to `discard`.
 */
export function readBroughtIn(
  request: Request,
  stage: (stream: Readable, name: string) => Promise<StagedSound>,
  discard: (sound: StagedSound) => Promise<void>,
): Promise<BroughtIn> {
  return new Promise((resolve, reject) => {
    let title: string | null = null;
    let transcript: Promise<{ name: string; bytes: Buffer }> | null = null;
    let sound: Promise<StagedSound> | null = null;
    let parser: busboy.Busboy;
    try {
      parser = busboy({ headers: request.headers, defParamCharset: 'utf8', limits: { files: 2, fields: 4, fieldSize: 2_000, fileSize: LARGEST_SOUND } });
    } catch {
      reject(new BadRequestException('Send the files as a form (multipart/form-data).'));
      return;
    }
    const settle = async (): Promise<void> => {
      const results = await Promise.allSettled([transcript, sound]);
      const failed = results.find((result) => result.status === 'rejected');
      if (failed !== undefined) {
        if (results[1].status === 'fulfilled' && results[1].value !== null) await discard(results[1].value);
        throw failed.reason;
      }
      resolve({ title, transcript: await transcript, sound: await sound });
    };
    parser.on('field', (name, value) => {
      if (name === 'title' && value.trim() !== '') title = value.trim().slice(0, 160);
    });
    parser.on('file', (field, stream, { filename }) => {
      const name = (filename ?? 'file').slice(0, 255);
      if (field === 'transcript' && transcript === null) {
        transcript = readAll(stream, name);
        transcript.catch(() => stream.resume());
      } else if (field === 'sound' && sound === null) {
        sound = stage(stream, name);
        sound.catch(() => stream.resume());
      } else stream.resume();
    });
    parser.on('close', () => {
      settle().catch(reject);
    });
    const broken = (): void => {
      parser.destroy();
      settle().catch(reject);
    };
    parser.on('error', () => {
      settle().then(
        () => undefined,
        () => undefined,
      );
      reject(new BadRequestException('The upload was cut short.'));
    });
    request.on('aborted', broken);
    request.pipe(parser);
  });
}

async function readAll(stream: Readable, name: string): Promise<{ name: string; bytes: Buffer }> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > LARGEST_TRANSCRIPT) throw new PayloadTooLargeException(`“${name}” is over 64 MB, too large for a transcript.`);
    chunks.push(chunk);
  }
  return { name, bytes: Buffer.concat(chunks) };
}
