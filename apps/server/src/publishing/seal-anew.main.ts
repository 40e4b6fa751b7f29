import 'reflect-metadata';
import { Module } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import { AuditModule } from '../audit/audit.module.js';
import { ConfigModule } from '../config/config.module.js';
import { DatabaseModule } from '../database/database.module.js';
import { AccountsService } from './accounts.service.js';
import { Lines } from './lines.service.js';
import { Pace } from './pace.service.js';
import { RightsService } from './rights.service.js';
import { Sealing } from './sealing.js';

// Seals every token with the first of SIFT_REEL_SEALING_KEYS, whichever of them it was sealed with; the others can be left out afterwards.
@Module({ imports: [ConfigModule, DatabaseModule, AuditModule], providers: [AccountsService, Lines, Pace, RightsService, Sealing] })
class SealAnew {}

const app = await NestFactory.createApplicationContext(SealAnew, { logger: ['error'] });
try {
  process.stdout.write(`${await app.get(AccountsService).sealAnew()} accounts were sealed with the first key.\n`);
} finally {
  await app.close();
}
