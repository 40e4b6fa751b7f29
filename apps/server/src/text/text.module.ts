import { Global, Module } from '@nestjs/common';
import { TextPool } from './text-pool.service.js';

@Global()
@Module({ providers: [TextPool], exports: [TextPool] })
export class TextModule {}
