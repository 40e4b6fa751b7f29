import type { LoggerService } from '@nestjs/common';
import { type Logger, pino } from 'pino';
import { LOG_LEVELS, type LogLevel } from './config.js';

/** Structured log lines on standard output. Whatever could carry a secret is left out by path, at any depth used here. */
export const log: Logger = pino({
  // A level that cannot be used is refused where the configuration is read, in words.
  level: LOG_LEVELS.includes(process.env['SIFT_REEL_LOG_LEVEL'] as LogLevel) ? process.env['SIFT_REEL_LOG_LEVEL']! : 'info',
  base: { part: process.env['SIFT_REEL_PART'] ?? 'server' },
  redact: {
    paths: [
      'password',
      '*.password',
      'passwordHash',
      '*.passwordHash',
      'cookie',
      '*.cookie',
      'authorization',
      '*.authorization',
      'csrfToken',
      '*.csrfToken',
      'token',
      '*.token',
      'databaseUrl',
      '*.databaseUrl',
      'headers',
      '*.headers',
    ],
    censor: '[left out]',
  },
});

/** A path as it may be written down: without what opens a private address. */
export const spokenPath = (path: string): string => path.replace(/^\/api\/(calendar|handed)\/.*/s, (_, kind: string) => `/api/${kind}/[left out]`);

/** Nest's own messages, through the same logger. */
export class NestLog implements LoggerService {
  log(message: unknown, context?: string): void {
    log.debug({ context }, String(message));
  }
  warn(message: unknown, context?: string): void {
    log.warn({ context }, String(message));
  }
  error(message: unknown, stack?: string, context?: string): void {
    log.error({ context, stack }, String(message));
  }
  fatal(message: unknown, context?: string): void {
    log.fatal({ context }, String(message));
  }
}
