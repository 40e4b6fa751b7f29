import { GetObjectCommand, S3Client } from '@aws-sdk/client-s3';
import { getSignedUrl } from '@aws-sdk/s3-request-presigner';
import { describe, expect, it } from 'vitest';
import { refusalOf, type SignedRequest } from './signature-v4.js';

// The outside witness is the protocol's own library: what it signs is let in, and what differs from that in anything is not.
const CREDENTIALS = { keyId: 'made-up-key', secret: 'made up and never shown' };
const AT = new Date('2026-05-04T10:20:30Z');
const MINUTE_MS = 60_000;

async function signed(key: string, fields: object = {}): Promise<SignedRequest> {
  const client = new S3Client({
    endpoint: 'http://store.example:9000',
    region: 'us-east-1',
    forcePathStyle: true,
    credentials: { accessKeyId: CREDENTIALS.keyId, secretAccessKey: CREDENTIALS.secret },
  });
  const address = new URL(await getSignedUrl(client, new GetObjectCommand({ Bucket: 'reels', Key: key, ...fields }), { expiresIn: 600, signingDate: AT }));
  client.destroy();
  return { method: 'GET', path: address.pathname, query: address.search.slice(1), headers: { host: address.host } };
}

describe('a signed address', () => {
  it.each(['one.mp4', 'a folder/näher (2) + x!*.mp4', '100%'])('is let in as long as it holds: %s', async (key) => {
    const request = await signed(key, { ResponseContentDisposition: `attachment; filename="a 'b'.mp4"` });
    expect(refusalOf(request, CREDENTIALS, AT.getTime())).toBeNull();
    expect(refusalOf(request, CREDENTIALS, AT.getTime() + 10 * MINUTE_MS)).toBeNull();
    expect(refusalOf(request, CREDENTIALS, AT.getTime() + 10 * MINUTE_MS + 1)).toBe('ExpiredToken');
    expect(refusalOf(request, CREDENTIALS, AT.getTime() - 16 * MINUTE_MS)).toBe('RequestTimeTooSkewed');
  });

  it('is not let in when anything of it is another', async () => {
    const request = await signed('one.mp4', { ResponseContentType: 'video/mp4' });
    const now = AT.getTime();
    const spoilt: [string, SignedRequest][] = [
      ['method', { ...request, method: 'PUT' }],
      ['path', { ...request, path: '/reels/two.mp4' }],
      ['host', { ...request, headers: { host: 'other.example' } }],
      ['length of its life', { ...request, query: request.query.replace('Expires=600', 'Expires=601') }],
      ['parameter', { ...request, query: request.query.replace('video%2Fmp4', 'text%2Fhtml') }],
      ['parameter more', { ...request, query: `${request.query}&versionId=1` }],
      ['signature', { ...request, query: request.query.replace(/Signature=./, 'Signature=') }],
    ];
    for (const [what, one] of spoilt) expect(refusalOf(one, CREDENTIALS, now), what).toBe('SignatureDoesNotMatch');
    expect(refusalOf(request, { ...CREDENTIALS, keyId: 'another' }, now)).toBe('InvalidAccessKeyId');
    expect(refusalOf(request, { ...CREDENTIALS, secret: 'another' }, now)).toBe('SignatureDoesNotMatch');
    expect(refusalOf({ ...request, query: 'X-Amz-Algorithm=AWS4-HMAC-SHA256' }, CREDENTIALS, now)).toBe('AccessDenied');
    expect(refusalOf({ ...request, query: '' }, CREDENTIALS, now)).toBe('AccessDenied');
  });
});
