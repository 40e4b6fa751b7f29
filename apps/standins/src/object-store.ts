import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type Credentials, refusalOf, type Refusal, type SignedRequest } from './signature-v4.js';

const STATUS: Readonly<Record<string, number>> = {
  AccessDenied: 403,
  InvalidAccessKeyId: 403,
  SignatureDoesNotMatch: 403,
  RequestTimeTooSkewed: 403,
  ExpiredToken: 403,
  NoSuchKey: 404,
  NoSuchBucket: 404,
  NoSuchUpload: 404,
  InvalidRange: 416,
  InvalidPart: 400,
  EntityTooSmall: 400,
  XAmzContentSHA256Mismatch: 400,
  PreconditionFailed: 412,
  NotImplemented: 501,
  InternalError: 500,
};
/** A part is at least so large, unless it is the last. */
const LEAST_PART = 5 * 1_024 ** 2;
const PAGE = 1_000;
const LARGEST_LIST = 4_000_000;

class StoreError extends Error {
  constructor(readonly code: Refusal | (string & {})) {
    super(code);
  }
}

/** What it was asked, for tests: a method and a path, and by whom. */
export interface Asked {
  readonly method: string;
  readonly key: string;
  readonly range: string | undefined;
  /** Whether the address itself was signed. */
  readonly signedAddress: boolean;
}

/**
 * Object storage, simulated: one bucket in a folder, asked by S3's protocol as far as it is needed: objects whole, in parts and by range,
 * lists, signed addresses. Every request's signature is checked, and what was put there against its own. Pages of `origin` may read.
 */
export class ObjectStoreStandIn {
  readonly asked: Asked[] = [];
  /** Asked before each request; what it throws is answered with an error of the store's own. */
  fault: (asked: Asked) => void = () => undefined;

  constructor(
    private readonly folder: string,
    private readonly bucket: string,
    private readonly credentials: Credentials,
    private readonly origin: string | null = null,
  ) {}

  async answer(request: IncomingMessage, response: ServerResponse, nowMs = Date.now()): Promise<void> {
    const [path, query = ''] = (request.url ?? '/').split(/\?(.*)/s) as [string, string?];
    if (this.origin !== null && request.headers.origin === this.origin) response.setHeader('Access-Control-Allow-Origin', this.origin);
    const [, bucket = '', ...rest] = path.split('/');
    const key = decodeURIComponent(rest.join('/'));
    const params = new URLSearchParams(query);
    const asked = { method: request.method ?? '', key, range: request.headers.range, signedAddress: params.has('X-Amz-Signature') };
    this.asked.push(asked);
    try {
      const signed: SignedRequest = { method: asked.method, path, query, headers: request.headers as Record<string, string> };
      const refusal = refusalOf(signed, this.credentials, nowMs);
      if (refusal !== null) throw new StoreError(refusal);
      try {
        this.fault(asked);
      } catch {
        throw new StoreError('InternalError');
      }
      if (bucket !== this.bucket) throw new StoreError('NoSuchBucket');
      await (key === '' ? this.onBucket(request, response, params) : this.onObject(request, response, key, params));
    } catch (error) {
      if (response.headersSent) response.destroy();
      else refuse(response, error instanceof StoreError ? error.code : 'InternalError');
      request.resume();
    }
  }

  private async onBucket(request: IncomingMessage, response: ServerResponse, params: URLSearchParams): Promise<void> {
    if (request.method !== 'GET') throw new StoreError('NotImplemented');
    if (params.has('uploads')) return xml(response, 'ListMultipartUploadsResult', await this.listUploads(params.get('prefix') ?? ''));
    const [prefix, after] = [params.get('prefix') ?? '', params.get('continuation-token') ?? ''];
    const keys = (await this.keys()).filter((key) => key.startsWith(prefix) && key > after);
    const shown = keys.slice(0, PAGE);
    const contents = await Promise.all(
      shown.map(async (key) => {
        const found = await stat(this.pathOf(key));
        return `<Contents><Key>${escapeXml(key)}</Key><LastModified>${found.mtime.toISOString()}</LastModified><Size>${found.size}</Size></Contents>`;
      }),
    );
    const more = keys.length > PAGE;
    const next = more ? `<NextContinuationToken>${escapeXml(shown.at(-1)!)}</NextContinuationToken>` : '';
    return xml(response, 'ListBucketResult', `<IsTruncated>${more}</IsTruncated>${next}<KeyCount>${shown.length}</KeyCount>${contents.join('')}`);
  }

  private async onObject(request: IncomingMessage, response: ServerResponse, key: string, params: URLSearchParams): Promise<void> {
    const uploadId = params.get('uploadId');
    switch (request.method) {
      case 'PUT': {
        if (uploadId !== null) return this.putPart(request, response, uploadId, Number(params.get('partNumber')));
        if (request.headers['if-none-match'] === '*' && (await this.has(key))) throw new StoreError('PreconditionFailed');
        const { path, etag } = await this.receive(request);
        await rename(path, this.pathOf(key));
        response.writeHead(200, { ETag: `"${etag}"` }).end();
        return;
      }
      case 'POST':
        if (params.has('uploads')) return this.begin(response, key);
        if (uploadId !== null) return this.complete(request, response, key, uploadId);
        throw new StoreError('NotImplemented');
      case 'DELETE':
        await (uploadId === null ? rm(this.pathOf(key), { force: true }) : rm(this.uploadPath(uploadId), { recursive: true, force: true }));
        response.writeHead(204).end();
        return;
      case 'GET':
      case 'HEAD':
        return this.read(request, response, key, params);
      default:
        throw new StoreError('NotImplemented');
    }
  }

  private async read(request: IncomingMessage, response: ServerResponse, key: string, params: URLSearchParams): Promise<void> {
    const found = await stat(this.pathOf(key)).catch(() => null);
    if (found === null) throw new StoreError('NoSuchKey');
    const range = rangeOf(request.headers.range, found.size);
    const headers = {
      'Accept-Ranges': 'bytes',
      'Content-Type': params.get('response-content-type') ?? 'binary/octet-stream',
      'Last-Modified': found.mtime.toUTCString(),
      'Content-Length': range === null ? found.size : range.end - range.start,
      ...(range === null ? {} : { 'Content-Range': `bytes ${range.start}-${range.end - 1}/${found.size}` }),
      ...(params.has('response-content-disposition') ? { 'Content-Disposition': params.get('response-content-disposition')! } : {}),
    };
    response.writeHead(range === null ? 200 : 206, headers);
    if (request.method === 'HEAD' || found.size === 0) response.end();
    else await pipeline(createReadStream(this.pathOf(key), range === null ? {} : { start: range.start, end: range.end - 1 }), response);
  }

  private async begin(response: ServerResponse, key: string): Promise<void> {
    const uploadId = `${randomUUID()}.${encodeURIComponent(key)}`;
    await mkdir(this.uploadPath(uploadId), { recursive: true });
    xml(response, 'InitiateMultipartUploadResult', `<Bucket>${this.bucket}</Bucket><Key>${escapeXml(key)}</Key><UploadId>${escapeXml(uploadId)}</UploadId>`);
  }

  private async putPart(request: IncomingMessage, response: ServerResponse, uploadId: string, part: number): Promise<void> {
    if ((await stat(this.uploadPath(uploadId)).catch(() => null)) === null) throw new StoreError('NoSuchUpload');
    const { path, etag } = await this.receive(request);
    await rename(path, join(this.uploadPath(uploadId), `${part}-${etag}`));
    response.writeHead(200, { ETag: `"${etag}"` }).end();
  }

  private async complete(request: IncomingMessage, response: ServerResponse, key: string, uploadId: string): Promise<void> {
    const folder = this.uploadPath(uploadId);
    const have = await readdir(folder).catch(() => null);
    if (have === null) throw new StoreError('NoSuchUpload');
    let body = '';
    for await (const chunk of request.setEncoding('utf8')) {
      body += chunk as string;
      if (body.length > LARGEST_LIST) throw new StoreError('InvalidPart');
    }
    const named = [...body.matchAll(/<Part>(.*?)<\/Part>/gs)].map(([, one]) => {
      const [number, etag] = [/<PartNumber>(\d+)</, /<ETag>(?:&quot;|"|&#34;)?([0-9a-f]+)/].map((field) => field.exec(one!)?.[1]);
      return `${number}-${etag}`;
    });
    if (named.length === 0 || named.some((one) => !have.includes(one))) throw new StoreError('InvalidPart');
    for (const one of named.slice(0, -1)) if ((await stat(join(folder, one))).size < LEAST_PART) throw new StoreError('EntityTooSmall');
    const whole = join(this.folder, 'coming', randomUUID());
    await mkdir(join(this.folder, 'coming'), { recursive: true });
    for (const one of named) await pipeline(createReadStream(join(folder, one)), createWriteStream(whole, { flags: 'a' }));
    await mkdir(join(this.folder, 'objects'), { recursive: true });
    await rename(whole, this.pathOf(key));
    await rm(folder, { recursive: true, force: true });
    xml(
      response,
      'CompleteMultipartUploadResult',
      `<Key>${escapeXml(key)}</Key><ETag>"${createHash('md5').update(named.join()).digest('hex')}-${named.length}"</ETag>`,
    );
  }

  /** Writes what is sent aside, and looks whether it is what was signed. */
  private async receive(request: IncomingMessage): Promise<{ path: string; etag: string }> {
    const promised = request.headers['x-amz-content-sha256'];
    if (typeof promised === 'string' && promised.startsWith('STREAMING-')) throw new StoreError('NotImplemented');
    const path = join(this.folder, 'coming', randomUUID());
    await mkdir(join(this.folder, 'coming'), { recursive: true });
    await mkdir(join(this.folder, 'objects'), { recursive: true });
    const [sum, etag] = [createHash('sha256'), createHash('md5')];
    const look = new Transform({
      transform(chunk: Buffer, _, done) {
        sum.update(chunk);
        etag.update(chunk);
        done(null, chunk);
      },
    });
    try {
      await pipeline(request, look, createWriteStream(path));
    } catch (error) {
      await rm(path, { force: true });
      throw error;
    }
    if (promised !== undefined && promised !== 'UNSIGNED-PAYLOAD' && sum.digest('hex') !== promised) {
      await rm(path, { force: true });
      throw new StoreError('XAmzContentSHA256Mismatch');
    }
    return { path, etag: etag.digest('hex') };
  }

  private async listUploads(prefix: string): Promise<string> {
    const names = await readdir(join(this.folder, 'uploads')).catch(() => []);
    const rows = await Promise.all(
      names.map(async (name) => {
        const key = decodeURIComponent(name.slice(name.indexOf('.') + 1));
        const begun = (await stat(join(this.folder, 'uploads', name))).birthtime.toISOString();
        return key.startsWith(prefix)
          ? `<Upload><Key>${escapeXml(key)}</Key><UploadId>${escapeXml(name)}</UploadId><Initiated>${begun}</Initiated></Upload>`
          : '';
      }),
    );
    return `<IsTruncated>false</IsTruncated>${rows.join('')}`;
  }

  /** All keys there are, in order. */
  async keys(): Promise<string[]> {
    return (await readdir(join(this.folder, 'objects')).catch(() => [])).map(decodeURIComponent).sort();
  }

  async has(key: string): Promise<boolean> {
    return stat(this.pathOf(key)).then(
      () => true,
      () => false,
    );
  }

  /** Where an object lies. */
  pathOf(key: string): string {
    return join(this.folder, 'objects', encodeURIComponent(key));
  }

  private uploadPath(uploadId: string): string {
    return join(this.folder, 'uploads', uploadId.replaceAll('/', ''));
  }
}

/** The range that is asked for, its end outside; null for the whole. */
function rangeOf(header: string | undefined, size: number): { start: number; end: number } | null {
  const found = /^bytes=(\d*)-(\d*)$/.exec(header ?? '');
  if (found === null || (found[1] === '' && found[2] === '')) return null;
  const start = found[1] === '' ? Math.max(0, size - Number(found[2])) : Number(found[1]);
  const end = found[1] === '' || found[2] === '' ? size : Math.min(size, Number(found[2]) + 1);
  if (start >= end) throw new StoreError('InvalidRange');
  return { start, end };
}

const escapeXml = (text: string): string => text.replace(/[&<>"]/g, (one) => `&#${one.charCodeAt(0)};`);
const HEAD = '<?xml version="1.0" encoding="UTF-8"?>';

function xml(response: ServerResponse, root: string, inner: string): void {
  response.writeHead(200, { 'Content-Type': 'application/xml' }).end(`${HEAD}<${root}>${inner}</${root}>`);
}

function refuse(response: ServerResponse, code: string): void {
  response.writeHead(STATUS[code] ?? 500, { 'Content-Type': 'application/xml' }).end(`${HEAD}<Error><Code>${code}</Code><Message>${code}</Message></Error>`);
}
