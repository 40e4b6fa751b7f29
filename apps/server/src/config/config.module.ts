import { Global, Module } from '@nestjs/common';
import { Clock } from './clock.js';
import { type Config, type PlatformConfig, readConfig } from './config.js';
import { CONFIG } from './token.js';

export { CONFIG };
export type { Config, PlatformConfig };

@Global()
@Module({ providers: [{ provide: CONFIG, useFactory: () => readConfig() }, Clock], exports: [CONFIG, Clock] })
export class ConfigModule {}
