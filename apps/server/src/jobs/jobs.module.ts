import { Global, Module } from '@nestjs/common';
import { QueueService } from './queue.service.js';
import { TextPool } from './text-pool.service.js';

@Global()
@Module({ providers: [QueueService, TextPool], exports: [QueueService, TextPool] })
export class JobsModule {}
