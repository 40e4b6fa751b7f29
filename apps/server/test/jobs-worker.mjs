// A worker with small works of its own, for tests that kill it. What each run does stands in tables of the test's.
import 'reflect-metadata';
import { setTimeout as wait } from 'node:timers/promises';
import { Module } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import { ConfigModule } from '../dist/config/config.module.js';
import { NestLog } from '../dist/config/logger.js';
import { DatabaseModule } from '../dist/database/database.module.js';
import { Database } from '../dist/database/database.service.js';
import { defineJobKind, JobRefusedError } from '../dist/jobs/job-kind.js';
import { JobWorker } from '../dist/jobs/job-worker.service.js';
import { JobsModule, JobWorkerModule } from '../dist/jobs/jobs.module.js';
import { startPart } from '../dist/start-part.js';

const BEAT_MS = 15;
const queue = { name: 'test', slots: 3, longSlots: 1 };

/** @param {string} name @param {Partial<import('../dist/jobs/job-kind.js').JobKind>} more */
const kind = (name, more = {}) =>
  defineJobKind({ name, queue, attempts: 3, backOffMs: () => 50, lockKey: (subjectId) => `${name}:${subjectId}`, stages: ['working'], ...more });

/** Works for `ms`, leaving a trace of every moment, and stops when it is told to. */
async function trace(database, run, ms, signal = run.signal) {
  for (let at = 0; at < ms; at += BEAT_MS) {
    signal?.throwIfAborted();
    await database.apart(() => database.run('INSERT INTO beats (job_id, attempt, pid) VALUES ($1, $2, $3)', [run.jobId, run.attempt, process.pid]));
    if (signal !== null) run.report('working', at / ms);
    await wait(BEAT_MS);
  }
}

const deed = (database, run) => () => database.run('INSERT INTO deeds (job_id, attempt) VALUES ($1, $2)', [run.jobId, run.attempt]);

function register(worker, database) {
  const works = {
    quick: (ms) => async (_, run) => {
      await trace(database, run, ms);
      await run.complete(deed(database, run));
    },
    faulty: () => async (_, run) => {
      await trace(database, run, 100);
      const [{ faults }] = await database.rows('SELECT faults FROM jobs WHERE id = $1', [run.jobId]);
      if (faults === 0) throw new Error('it stumbled'); // once, however often it was killed meanwhile
      await run.complete(deed(database, run));
    },
    refused: () => () => Promise.reject(new JobRefusedError('The brief cannot be used.')),
    broken: () => () => Promise.reject(new Error('a nail in the machine')),
    poison: () => () => process.kill(process.pid, 'SIGKILL'),
    deaf: () => async (_, run) => {
      await trace(database, run, 30_000, null).catch(() => undefined); // hears no signal at all
    },
  };
  worker.register(kind('quick'), works.quick(300));
  worker.register(kind('steady'), works.quick(700));
  worker.register(kind('faulty'), works.faulty());
  worker.register(kind('refused'), works.refused());
  worker.register(kind('broken', { attempts: 2 }), works.broken());
  worker.register(kind('poison'), works.poison());
  worker.register(kind('deaf'), works.deaf());
  worker.register(kind('shared', { lockKey: () => 'shared:the one thing' }), works.quick(150));
  return null;
}

class Root {}
Module({
  imports: [ConfigModule, DatabaseModule, JobsModule, JobWorkerModule],
  providers: [{ provide: 'works', inject: [JobWorker, Database], useFactory: register }],
})(Root);

await startPart(async () => {
  const app = await NestFactory.createApplicationContext(Root, { logger: new NestLog(), abortOnError: false });
  app.enableShutdownHooks(['SIGINT', 'SIGTERM']);
});
