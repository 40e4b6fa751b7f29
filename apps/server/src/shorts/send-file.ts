import type { Response } from 'express';

/** A download with its name: plain letters for old readers, RFC 5987 for the rest. */
export function sendFile(response: Response, name: string, type: string, body: string | Buffer): void {
  const plain = name
    .normalize('NFKD')
    .replace(/[^\x20-\x7e]+/g, '')
    .replace(/["\\]/g, '');
  response
    .setHeader('Content-Type', type)
    .setHeader(
      'Content-Disposition',
      `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name).replace(/['()*]/g, (c) => `%${c.charCodeAt(0).toString(16).toUpperCase()}`)}`,
    )
    .setHeader('Cache-Control', 'private, no-store')
    .send(body);
}
