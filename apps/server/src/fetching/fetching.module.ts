import { Module } from '@nestjs/common';
import { CONFIG, type Config } from '../config/config.module.js';
import { SafeFetch } from './safe-fetch.js';

@Module({
  providers: [{ provide: SafeFetch, inject: [CONFIG], useFactory: ({ fetchFrom }: Config) => new SafeFetch(fetchFrom) }],
  exports: [SafeFetch],
})
export class FetchingModule {}
