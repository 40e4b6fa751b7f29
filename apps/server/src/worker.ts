import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import { log, NestLog } from './config/logger.js';
import { stopWithParent } from './stop-with-parent.js';
import { WorkerModule } from './worker.module.js';

try {
  const app = await NestFactory.createApplicationContext(WorkerModule, { logger: new NestLog() });
  app.enableShutdownHooks(['SIGINT', 'SIGTERM']);
  stopWithParent();
  process.send?.({ ready: true });
} catch (error) {
  log.fatal({ error: error instanceof Error ? error.stack : String(error) }, 'the worker cannot start');
  process.exit(1);
}
