import { Global, Module } from '@nestjs/common';
import { type Config, readConfig } from './config.js';

export const CONFIG = Symbol('Config');
export type { Config };

@Global()
@Module({ providers: [{ provide: CONFIG, useFactory: () => readConfig() }], exports: [CONFIG] })
export class ConfigModule {}
