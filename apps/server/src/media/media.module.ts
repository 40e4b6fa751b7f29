import { Module } from '@nestjs/common';
import { CONFIG, type Config } from '../config/config.module.js';
import { Database } from '../database/database.service.js';
import { MediaStore } from './media-store.service.js';

const store = {
  provide: MediaStore,
  inject: [CONFIG, Database],
  // What speaks to a store takes half a second to read: only where there is one.
  useFactory: async (config: Config, database: Database) =>
    new MediaStore(config, database, config.store === null ? null : new (await import('./object-store.js')).ObjectStore(config.store)),
};

/** Files and what reads them; knows no feature. */
@Module({ providers: [store], exports: [MediaStore] })
export class MediaModule {}
