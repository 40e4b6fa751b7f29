import 'reflect-metadata';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { BadRequestException, type INestApplication, ValidationPipe } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { SwaggerModule } from '@nestjs/swagger';
import compression from 'compression';
import express, { type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import { AppModule } from '../app.module.js';
import { CONFIG, type Config } from '../config/config.module.js';
import { NestLog, log, spokenPath } from '../config/logger.js';
import { apiDocument } from './document.js';
import { InvalidFormException } from '../problems/refusals.js';
import { ProblemFilter, toFieldProblems } from './problems.js';

/** Longest silence on a line, in ms. Event streams beat more often. */
const SILENCE_MS = 300_000;

/** The API with everything around it, ready to listen. */
export async function buildApp(): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule, {
    logger: new NestLog(),
    bodyParser: false,
    abortOnError: false,
    forceCloseConnections: true,
  });
  const server = app.getHttpServer();
  server.requestTimeout = 0; // a recording of 10 GB takes as long as it takes…
  server.timeout = SILENCE_MS; // …but a line on which nothing is said is cut
  server.keepAliveTimeout = 0; // by that alone: after five seconds, as Node has it, a caller or a proxy may be speaking when the line is cut
  const config = app.get<Config>(CONFIG);
  // Where browsers are sent for pictures and sound.
  const store = config.store?.publicEndpoint == null ? [] : [new URL(config.store.publicEndpoint).origin];
  app.set('trust proxy', config.trustProxy ? 'loopback' : false);
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          imgSrc: ["'self'", 'data:', 'blob:', ...store],
          mediaSrc: ["'self'", 'blob:', ...store],
          styleSrc: ["'self'", "'unsafe-inline'"],
          scriptSrc: ["'self'"],
          workerSrc: ["'self'", 'blob:'],
          fontSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          baseUri: ["'self'"],
          formAction: ["'self'"],
        },
      },
      strictTransportSecurity: config.secureCookies,
    }),
  );
  app.use(logRequest);
  // Events must not wait in a buffer until it is worth compressing; transcripts are stored compressed.
  app.use(
    compression({
      filter: (request, response) => !/\/(?:progress|sound)$/.test(request.path) && compression.filter(request, response),
    }),
  );
  app.use(express.json({ limit: '1mb', verify: keepBytes }));
  app.use(refuseDepth);
  app.setGlobalPrefix('api');
  app.useGlobalPipes(
    new ValidationPipe({
      whitelist: true,
      forbidNonWhitelisted: true,
      transform: true,
      stopAtFirstError: false,
      exceptionFactory: (errors) => new InvalidFormException(toFieldProblems(errors)),
    }),
  );
  app.useGlobalFilters(new ProblemFilter());
  app.enableShutdownHooks(['SIGINT', 'SIGTERM']);
  SwaggerModule.setup('api/docs', app, apiDocument(app), { jsonDocumentUrl: 'api/docs.json', customSiteTitle: 'Sift Reel API' });
  if (config.webDir !== null) serveWeb(app, config.webDir);
  return app;
}

/** What is signed over its bytes is checked by them. */
function keepBytes(request: Request & { rawBody?: Buffer }, _response: Response, bytes: Buffer): void {
  if (request.url.includes('/platforms/')) request.rawBody = bytes;
}

/** No form is this deep; checking one that is would take the stack. */
const DEEPEST = 20;

function refuseDepth(request: Request, _response: Response, next: NextFunction): void {
  let layer: unknown[] = [request.body];
  for (let depth = 0; layer.length > 0; depth += 1) {
    if (depth > DEEPEST) return next(new BadRequestException('The body is nested too deeply.'));
    layer = layer.flatMap((value) => (typeof value === 'object' && value !== null ? Object.values(value) : []));
  }
  next();
}

function logRequest(request: Request, response: Response, next: NextFunction): void {
  const startedMs = performance.now();
  response.on('finish', () => {
    if (!request.path.startsWith('/api') || request.path === '/api/health') return;
    log.info({ method: request.method, path: spokenPath(request.path), status: response.statusCode, ms: Math.round(performance.now() - startedMs) }, 'request');
  });
  next();
}

/** The built web app; every path that is no file and not the API's is one of its routes. */
function serveWeb(app: INestApplication, folder: string): void {
  if (!existsSync(join(folder, 'index.html'))) throw new Error(`the web app is not built: ${folder} has no index.html`);
  app.use(
    express.static(folder, {
      index: false,
      setHeaders: (response, path) => response.setHeader('Cache-Control', path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache'),
    }),
  );
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET' || request.path.startsWith('/api')) return next();
    response.setHeader('Cache-Control', 'no-cache').sendFile(join(folder, 'index.html'));
  });
}
