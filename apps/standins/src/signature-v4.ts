import { createHash, createHmac, timingSafeEqual } from 'node:crypto';

/** A request as its signature sees it. Header names are lower case; the path is as it was sent, its query without the question mark. */
export interface SignedRequest {
  readonly method: string;
  readonly path: string;
  readonly query: string;
  readonly headers: Readonly<Record<string, string | undefined>>;
}
export interface Credentials {
  readonly keyId: string;
  readonly secret: string;
}

/** Why a request is not let in, as the protocol names it. */
export type Refusal = 'AccessDenied' | 'InvalidAccessKeyId' | 'SignatureDoesNotMatch' | 'RequestTimeTooSkewed' | 'ExpiredToken';

const ALGORITHM = 'AWS4-HMAC-SHA256';
/** Clocks may differ by so much. */
const SKEW_MS = 15 * 60_000;
/** A signed address holds for a week at most. */
const LONGEST_SECONDS = 604_800;

const sha256 = (text: string): string => createHash('sha256').update(text, 'utf8').digest('hex');
const hmac = (key: string | Buffer, text: string): Buffer => createHmac('sha256', key).update(text, 'utf8').digest();
/** RFC 3986: what is not unreserved is escaped. */
const escaped = (text: string): string => encodeURIComponent(text).replace(/[!'()*]/g, (one) => `%${one.charCodeAt(0).toString(16).toUpperCase()}`);

/** Names and values of a query in the order in which they are signed; the signature itself is not. */
function canonicalQuery(query: string): string {
  const pairs = [...new URLSearchParams(query)].filter(([name]) => name !== 'X-Amz-Signature').map(([name, value]) => [escaped(name), escaped(value)] as const);
  return pairs
    .sort(([a, x], [b, y]) => (a < b ? -1 : a > b ? 1 : x < y ? -1 : 1))
    .map((pair) => pair.join('='))
    .join('&');
}

/**
 * The signature of a request, version 4.
 * @param scope date, region, service and `aws4_request`, joined by slashes
 * @param signed names of the headers that are signed, in order
 */
export function signatureOf(request: SignedRequest, at: string, scope: string, signed: readonly string[], payload: string, secret: string): string {
  const headers = signed.map((name) => `${name}:${(request.headers[name] ?? '').trim().replace(/ +/g, ' ')}\n`).join('');
  const canonical = [request.method, request.path, canonicalQuery(request.query), headers, signed.join(';'), payload].join('\n');
  const [date, region, service, end] = scope.split('/') as [string, string, string, string];
  const key = hmac(hmac(hmac(hmac(`AWS4${secret}`, date), region), service), end);
  return hmac(key, [ALGORITHM, at, scope, sha256(canonical)].join('\n')).toString('hex');
}

/** Checks who asks: in a header, or in the address. @returns null where he may */
export function refusalOf(request: SignedRequest, { keyId, secret }: Credentials, nowMs: number): Refusal | null {
  const query = new URLSearchParams(request.query);
  const inAddress = query.get('X-Amz-Algorithm') === ALGORITHM;
  const given = inAddress ? inQuery(query) : inHeader(request.headers);
  if (given === null) return 'AccessDenied';
  const { credential, signed, signature, at, payload, seconds } = given;
  const [id, ...scope] = credential.split('/');
  if (id !== keyId) return 'InvalidAccessKeyId';
  const atMs = momentOf(at);
  if (atMs === null || scope.length !== 4 || !signed.includes('host')) return 'AccessDenied';
  if (seconds === null ? Math.abs(nowMs - atMs) > SKEW_MS : atMs > nowMs + SKEW_MS) return 'RequestTimeTooSkewed';
  if (seconds !== null && (!(seconds > 0 && seconds <= LONGEST_SECONDS) || nowMs > atMs + seconds * 1_000)) return 'ExpiredToken';
  const [wanted, found] = [signatureOf(request, at, scope.join('/'), signed, payload, secret), signature].map((one) => Buffer.from(one)) as [Buffer, Buffer];
  return wanted.length === found.length && timingSafeEqual(wanted, found) ? null : 'SignatureDoesNotMatch';
}

interface Given {
  readonly credential: string;
  readonly signed: readonly string[];
  readonly signature: string;
  readonly at: string;
  readonly payload: string;
  /** How long an address holds; null for a header. */
  readonly seconds: number | null;
}

function inHeader(headers: SignedRequest['headers']): Given | null {
  const found = /^AWS4-HMAC-SHA256 Credential=([^,]+), ?SignedHeaders=([^,]+), ?Signature=([0-9a-f]{64})$/.exec(headers['authorization'] ?? '');
  const [at, payload] = [headers['x-amz-date'], headers['x-amz-content-sha256']];
  if (found === null || at === undefined || payload === undefined) return null;
  return { credential: found[1]!, signed: found[2]!.split(';'), signature: found[3]!, at, payload, seconds: null };
}

function inQuery(query: URLSearchParams): Given | null {
  const [credential, signed, signature, at, seconds] = ['Credential', 'SignedHeaders', 'Signature', 'Date', 'Expires'].map((name) =>
    query.get(`X-Amz-${name}`),
  );
  if (credential == null || signed == null || signature == null || at == null || seconds == null) return null;
  return { credential, signed: signed.split(';'), signature, at, payload: 'UNSIGNED-PAYLOAD', seconds: Number(seconds) };
}

function momentOf(at: string): number | null {
  const found = /^(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z$/.exec(at);
  return found === null ? null : Date.parse(`${found[1]}-${found[2]}-${found[3]}T${found[4]}:${found[5]}:${found[6]}Z`);
}
