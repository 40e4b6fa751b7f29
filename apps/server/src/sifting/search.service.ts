import { Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import type { Vectors } from '@sift-reel/core';
import { DIMENSIONS, Embedder, sentenceKey, type VectorCache } from '@sift-reel/embedder';
import type { Actor } from '../identity/actor.js';
import { Database } from '../database/database.service.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import { TextPool } from '../text/text-pool.service.js';
import type { SearchView } from './sifting.views.js';
import { databaseVectorCache } from './vector-cache.js';

/** Searches transcripts by words and by meaning, and hands out the vectors that sifts have left. */
@Injectable()
export class SearchService implements OnModuleDestroy {
  private readonly cache: VectorCache;
  private readonly embedder: Embedder;
  constructor(
    @Inject(Database) database: Database,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(TextPool) private readonly text: TextPool,
  ) {
    this.cache = databaseVectorCache(database);
    this.embedder = new Embedder({ threads: 1, cache: this.cache });
  }

  async search(actor: Actor, recordingId: string, query: string): Promise<SearchView> {
    const { talk, clientId } = await this.recordings.readTalk(actor, recordingId);
    const sentences = await this.knownVectors(clientId, talk.packed);
    const vectors = sentences === null ? null : { sentences, query: await this.embedder.embed([query]) };
    return { query, byMeaning: vectors !== null, hits: await this.text.search(clientId, { talk, query, vectors }) };
  }

  /** The vectors of all sentences, or null while some are not there: nobody waits here for the model to read hours of talk. */
  async knownVectors(clientId: string, packed: Uint8Array): Promise<Vectors | null> {
    const keys = (await this.text.sentenceTexts(clientId, { talk: { packed, levels: null } })).map(sentenceKey);
    const known = await this.cache.read([...new Set(keys)]);
    if (keys.length === 0 || keys.some((key) => !known.has(key))) return null;
    const data = new Float32Array(keys.length * DIMENSIONS);
    keys.forEach((key, row) => data.set(known.get(key)!, row * DIMENSIONS));
    return { dimensions: DIMENSIONS, data };
  }

  /** Vectors of what a brief or a client looks for. */
  embedTexts(texts: readonly string[]): Promise<Vectors> {
    return this.embedder.embed(texts);
  }

  async onModuleDestroy(): Promise<void> {
    await this.embedder.close();
  }
}
