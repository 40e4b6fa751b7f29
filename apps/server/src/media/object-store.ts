import { createReadStream, createWriteStream } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  AbortMultipartUploadCommand,
  DeleteObjectCommand,
  GetObjectCommand,
  HeadObjectCommand,
  ListMultipartUploadsCommand,
  ListObjectsV2Command,
  PutObjectCommand,
  S3Client,
  S3ServiceException,
} from '@aws-sdk/client-s3';
import { Upload } from '@aws-sdk/lib-storage';
import { getSignedUrl } from '@aws-sdk/s3-request-presigner';
import type { StoreConfig } from '../config/config.js';
import { MissingFileError, StoreAwayError } from './store-errors.js';

/** Parts of a file that is put there, and how many at once: what of it lies in memory. The protocol takes 10,000 parts, of 5 MiB at least. */
const PART_BYTES = 8 * 1_024 ** 2;
const PARTS_AT_ONCE = 2;
const MOST_PARTS = 9_000;
/** A playing browser asks again and again under one address: as long as somebody works at a stretch. */
const SIGNED_SECONDS = 12 * 3_600;
/** A file that takes longer was broken off, and its parts lie there for nothing. */
const BROKEN_OFF_MS = 24 * 3_600_000;

export interface StoredObject {
  readonly key: string;
  readonly changedMs: number;
}

/** A stretch of an object as it was asked for, with what is to be said of it. */
export interface ObjectRange {
  readonly stream: Readable;
  readonly status: 200 | 206;
  readonly bytes: number;
  readonly contentRange: string | undefined;
}

/** Objects in a bucket of storage that speaks S3's protocol. Keys are made here, from names made here. */
export class ObjectStore {
  private readonly client: S3Client;
  private readonly shown: S3Client | null;

  constructor(private readonly config: StoreConfig) {
    this.client = clientOf(config, config.endpoint);
    this.shown = config.publicEndpoint === null ? null : clientOf(config, config.publicEndpoint);
  }

  private at(key: string): { Bucket: string; Key: string } {
    return { Bucket: this.config.bucket, Key: this.config.prefix + key };
  }

  /** Puts a file there, whole or not at all. @throws StoreAwayError */
  async put(key: string, path: string, signal?: AbortSignal): Promise<void> {
    signal?.throwIfAborted();
    const { size } = await stat(path);
    if (size <= PART_BYTES) {
      // In memory, as a part is: it can be sent again, and its hash is in the signature.
      const small = new PutObjectCommand({ ...this.at(key), Body: await readFile(path) });
      await this.ask(key, () => this.client.send(small, { abortSignal: signal }), signal);
      return;
    }
    const upload = new Upload({
      client: this.client,
      params: { ...this.at(key), Body: createReadStream(path) },
      partSize: Math.max(PART_BYTES, Math.ceil(size / MOST_PARTS)),
      queueSize: PARTS_AT_ONCE,
    });
    const abort = (): void => void upload.abort();
    signal?.addEventListener('abort', abort);
    try {
      await this.ask(key, () => upload.done(), signal);
    } finally {
      signal?.removeEventListener('abort', abort);
    }
  }

  /** Writes a text where there is none yet. @returns what is there now */
  async claim(key: string, text: string): Promise<string> {
    const put = new PutObjectCommand({ ...this.at(key), Body: text, IfNoneMatch: '*' });
    // 412: there is one; 409: another is writing one just now.
    const isThere = (error: unknown): boolean => [409, 412].includes(statusOf(error) ?? 0);
    const written = await this.ask(key, () =>
      this.client.send(put).then(
        () => true,
        (error: unknown) => {
          if (isThere(error)) return false;
          throw error;
        },
      ),
    );
    if (written) return text;
    return this.ask(key, async () => (await this.client.send(new GetObjectCommand(this.at(key)))).Body!.transformToString());
  }

  /** Brings a file here. @throws MissingFileError, StoreAwayError; what was written of it stays, and is the caller's to take away */
  async fetchTo(key: string, path: string, signal?: AbortSignal): Promise<void> {
    const { stream, bytes } = await this.read(key, undefined, signal);
    // What goes wrong on this side (a full disk) has a code of the file system; the rest is the line's.
    const to = createWriteStream(path);
    let own: unknown = null;
    to.on('error', (error) => (own ??= error));
    try {
      await pipeline(stream, to, signal === undefined ? {} : { signal });
    } catch (error) {
      if (own !== null || signal?.aborted === true) throw error;
      throw away(error);
    }
    const { size } = await stat(path);
    if (size !== bytes) throw away(new Error(`${size} of ${bytes} bytes came`));
  }

  /** @param range a header of RFC 9110, one range; @throws MissingFileError, StoreAwayError, RangeError where nothing lies in the range */
  async read(key: string, range?: string, signal?: AbortSignal): Promise<ObjectRange> {
    const command = new GetObjectCommand({ ...this.at(key), Range: range });
    const { Body, ContentLength, ContentRange } = await this.ask(key, () => this.client.send(command, { abortSignal: signal }), signal);
    return { stream: Body as Readable, status: ContentRange === undefined ? 200 : 206, bytes: ContentLength ?? 0, contentRange: ContentRange };
  }

  /** Length in bytes. @throws MissingFileError, StoreAwayError */
  async sizeOf(key: string): Promise<number> {
    return (await this.ask(key, () => this.client.send(new HeadObjectCommand(this.at(key))))).ContentLength ?? 0;
  }

  async has(key: string): Promise<boolean> {
    return this.sizeOf(key).then(
      () => true,
      (error: unknown) => {
        if (error instanceof MissingFileError) return false;
        throw error;
      },
    );
  }

  /** Asks the store, and says what its answers mean. */
  private async ask<T>(key: string, act: () => Promise<T>, signal?: AbortSignal): Promise<T> {
    try {
      return await act();
    } catch (error) {
      signal?.throwIfAborted();
      const status = statusOf(error);
      if (status === 404) throw new MissingFileError(`there is no ${key} in the store`, { cause: error });
      if (status === 416) throw new RangeError('nothing of the file lies there', { cause: error });
      // It has said no: a wrong key, a bucket that is not there, a clock that is off. Asking again does not help.
      if (status !== null && status < 500 && status !== 429) throw error;
      throw away(error);
    }
  }

  async remove(key: string): Promise<void> {
    await this.ask(key, () => this.client.send(new DeleteObjectCommand(this.at(key))));
  }

  /** All objects whose keys begin so, in pieces of at most a thousand. */
  async *list(start: string): AsyncGenerator<StoredObject> {
    const { prefix, bucket } = this.config;
    let from: string | undefined;
    do {
      const command = new ListObjectsV2Command({ Bucket: bucket, Prefix: prefix + start, ContinuationToken: from });
      const page = await this.ask(start, () => this.client.send(command));
      for (const { Key, LastModified } of page.Contents ?? []) yield { key: Key!.slice(prefix.length), changedMs: LastModified?.getTime() ?? 0 };
      from = page.NextContinuationToken;
    } while (from !== undefined);
  }

  /** Takes away the parts of files that were never put there whole. */
  async sweepBrokenOff(nowMs: number): Promise<void> {
    const { prefix, bucket } = this.config;
    const { Uploads = [] } = await this.ask(prefix, () => this.client.send(new ListMultipartUploadsCommand({ Bucket: bucket, Prefix: prefix })));
    for (const { Key, UploadId, Initiated } of Uploads)
      if ((Initiated?.getTime() ?? nowMs) < nowMs - BROKEN_OFF_MS)
        await this.ask(prefix, () => this.client.send(new AbortMultipartUploadCommand({ Bucket: bucket, Key, UploadId })));
  }

  /** An address under which a browser may read it by itself, for some hours; null where browsers do not reach the store. */
  async addressOf(key: string, { type, disposition }: { readonly type: string; readonly disposition: string | undefined }): Promise<string | null> {
    if (this.shown === null) return null;
    const command = new GetObjectCommand({ ...this.at(key), ResponseContentType: type, ResponseContentDisposition: disposition });
    return getSignedUrl(this.shown, command, { expiresIn: SIGNED_SECONDS });
  }

  close(): void {
    this.client.destroy();
    this.shown?.destroy();
  }
}

function clientOf({ region, keyId, secret }: StoreConfig, endpoint: string): S3Client {
  return new S3Client({
    endpoint,
    region,
    credentials: { accessKeyId: keyId, secretAccessKey: secret },
    // A bucket as part of the path works everywhere; as part of the host's name it needs names to be set up.
    forcePathStyle: true,
    // Checksums beyond the signature's are not known to every store that speaks the protocol.
    requestChecksumCalculation: 'WHEN_REQUIRED',
    responseChecksumValidation: 'WHEN_REQUIRED',
    maxAttempts: 5,
  });
}

const statusOf = (error: unknown): number | null => (error instanceof S3ServiceException ? (error.$metadata.httpStatusCode ?? null) : null);

const away = (cause: unknown): StoreAwayError => new StoreAwayError('The place where media live cannot be reached just now.', { cause });
