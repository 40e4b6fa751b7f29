import { Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { InjectConnection } from '@nestjs/sequelize';
import { sentenceTexts, type Transcript, type Vectors } from '@sift-reel/core';
import { DIMENSIONS, Embedder, sentenceKey, type VectorCache } from '@sift-reel/embedder';
import { Sequelize } from 'sequelize-typescript';
import type { Actor } from '../identity/actor.js';
import { TextPool } from '../jobs/text-pool.service.js';
import { unpackRow } from '../jobs/text-tasks.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import type { SearchView } from './sifting.views.js';
import { databaseVectorCache } from './vector-cache.js';

/** Searches transcripts by words and by meaning, and hands out the vectors that sifts have left. */
@Injectable()
export class SearchService implements OnModuleDestroy {
  private readonly cache: VectorCache;
  private readonly embedder: Embedder;
  constructor(
    @InjectConnection() sequelize: Sequelize,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(TextPool) private readonly pool: TextPool,
  ) {
    this.cache = databaseVectorCache(sequelize);
    this.embedder = new Embedder({ threads: 1, cache: this.cache });
  }

  async search(actor: Actor, recordingId: string, query: string): Promise<SearchView> {
    const packed = await this.recordings.readPacked(actor, recordingId);
    const transcript = unpackRow(packed);
    const sentences = await this.knownVectors(transcript);
    const vectors = sentences === null ? null : { sentences, query: await this.embedder.embed([query]) };
    const hits = await this.pool.search({ packed, query, vectors });
    return {
      query,
      byMeaning: vectors !== null,
      hits: hits.map(({ sentence, score, by }) => {
        const { firstWord, endWord, startMs, endMs } = transcript.sentences[sentence]!;
        const text = transcript.words
          .slice(firstWord, endWord)
          .map((word) => word.text)
          .join(' ');
        return { firstWord, endWord, startMs, endMs, score, by, text };
      }),
    };
  }

  /** The vectors of all sentences, or null while some are not there: nobody waits here for the model to read hours of talk. */
  async knownVectors(transcript: Transcript): Promise<Vectors | null> {
    const keys = sentenceTexts(transcript).map(sentenceKey);
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
