import type { Response } from 'express';

/** Says that it is a download, with its name: plain letters for old readers, RFC 5987 for the rest. */
export function dispositionOf(name: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/[^\x20-\x7e]+/g, '')
    .replace(/["\\]/g, '');
  const coded = encodeURIComponent(name).replace(/['()*]/g, (c) => `%${c.charCodeAt(0).toString(16).toUpperCase()}`);
  return `attachment; filename="${plain}"; filename*=UTF-8''${coded}`;
}

export function sendFile(response: Response, name: string, type: string, body: string | Buffer): void {
  response.setHeader('Content-Type', type).setHeader('Content-Disposition', dispositionOf(name)).setHeader('Cache-Control', 'private, no-store').send(body);
}
