import { AsyncLocalStorage } from 'node:async_hooks';
import { randomUUID } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { utimes } from 'node:fs/promises';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { BadRequestException, Inject, Injectable, NotFoundException, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { FileStore } from '@tus/file-store';
import { Server } from '@tus/server';
import { CONFIG, type Config } from '../config/config.module.js';
import { log } from '../config/logger.js';
import { Rounds } from '../config/rounds.js';
import { MediaStore } from '../media/media-store.service.js';

/** Where uploads are asked for and sent to. */
export const UPLOADS_PATH = 'uploads';
const LARGEST = 12 * 1_024 ** 3;
/** So long after its last piece an upload can be gone on with. */
const KEPT_MS = 48 * 3_600_000;
const SWEEP_EVERY_MS = 3_600_000;
const UPLOAD_ID = /^[\da-f-]{36}$/;

/** A file that is all there, and nobody's yet. */
export interface Uploaded {
  readonly id: string;
  readonly name: string;
}

/**
 * Files that come in pieces, after the tus protocol 1.0 (tus.io/protocols/resumable-upload): broken off anywhere, by the line, the
 * browser or this program, they go on where the last piece ended. An upload is its uploader's alone, until it is brought in.
 */
@Injectable()
export class ResumableUploads implements OnModuleInit, OnModuleDestroy {
  private readonly store: FileStore;
  private readonly tus: Server;
  private readonly uploader = new AsyncLocalStorage<string>();
  private readonly rounds = new Rounds('left uploads', SWEEP_EVERY_MS, () => this.sweep());

  constructor(
    @Inject(CONFIG) config: Config,
    @Inject(MediaStore) private readonly media: MediaStore,
  ) {
    mkdirSync(config.mediaDir, { recursive: true });
    this.store = new FileStore({ directory: media.pathOf('', 'uploads') });
    this.tus = new Server({
      path: `/api/${UPLOADS_PATH}`,
      datastore: this.store,
      maxSize: LARGEST,
      relativeLocation: true,
      allowedOrigins: () => false,
      namingFunction: () => randomUUID(),
      onUploadCreate: async (_, { metadata }) => {
        const name = (metadata?.['filename'] ?? '').replace(/[\0\p{Surrogate}]/gu, '').slice(0, 255);
        return { metadata: { filename: name === '' ? 'file' : name, userId: this.uploader.getStore()! } };
      },
      // Said by this module's own words, never by those of a stack.
      onResponseError: (_, error) => {
        if (!(error instanceof Error) && error.status_code < 500) return undefined;
        log.warn({ error: error instanceof Error ? error.message : error.body }, 'a piece of an upload was not taken');
        return { status_code: 500, body: 'The piece could not be kept.' };
      },
    });
  }

  async onModuleInit(): Promise<void> {
    await this.rounds.begin();
  }

  onModuleDestroy(): void {
    this.rounds.end();
  }

  /** Uploads that nobody has gone on with for two days. */
  async sweep(nowMs = Date.now()): Promise<void> {
    await this.media.sweep(() => Promise.resolve(new Set()), nowMs, 'uploads', KEPT_MS);
  }

  /** Answers one request of the protocol. @throws NotFoundException for another's upload, as for one that never was */
  async handle(userId: string, uploadId: string | null, request: IncomingMessage, response: ServerResponse): Promise<void> {
    // A request that says it is of another method than it was looked at as.
    if (request.headers['x-http-method-override'] !== undefined) throw new BadRequestException('Send the request by its own method.');
    if (uploadId !== null) {
      await this.find(userId, uploadId);
      await this.touch(uploadId);
    }
    await this.uploader.run(userId, () => this.tus.handle(request, response));
  }

  /** An upload of a user that is complete. @throws NotFoundException, BadRequestException while pieces are missing */
  async complete(userId: string, uploadId: string): Promise<Uploaded> {
    const { name, offset, size } = await this.find(userId, uploadId);
    if (offset !== size) throw new BadRequestException(`“${name}” is not all there yet.`);
    return { id: uploadId, name };
  }

  /** What is left of an upload that was brought in, or cannot be. */
  async forget(uploadId: string): Promise<void> {
    await this.media.remove(uploadId, 'uploads');
    await this.media.remove(`${uploadId}.json`, 'uploads');
  }

  /** File and what is kept of it are as old as the last that was heard of them, so that a long upload is not swept in halves. */
  private async touch(uploadId: string): Promise<void> {
    const now = new Date();
    for (const file of [uploadId, `${uploadId}.json`]) await utimes(this.media.pathOf(file, 'uploads'), now, now).catch(() => undefined);
  }

  private async find(userId: string, uploadId: string): Promise<{ name: string; offset: number; size: number | undefined }> {
    const upload = UPLOAD_ID.test(uploadId) ? await this.store.getUpload(uploadId).catch(() => null) : null;
    if (upload === null || upload.metadata?.['userId'] !== userId) throw new NotFoundException('There is no such upload.');
    return { name: upload.metadata['filename'] ?? 'file', offset: upload.offset, size: upload.size };
  }
}
