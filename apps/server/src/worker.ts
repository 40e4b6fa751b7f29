import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import { readConfig } from './config/config.js';
import { NestLog } from './config/logger.js';
import { startPart } from './start-part.js';
import { WorkerModule } from './worker.module.js';

await startPart(async () => {
  readConfig();
  const app = await NestFactory.createApplicationContext(WorkerModule, { logger: new NestLog(), abortOnError: false });
  app.enableShutdownHooks(['SIGINT', 'SIGTERM']);
});
