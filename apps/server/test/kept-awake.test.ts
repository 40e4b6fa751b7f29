import { createServer, get, type IncomingMessage, type ServerResponse } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { keptAwake } from '../dist/recordings/kept-awake.js';

/** What the server works on, until a test lets it end. */
let end: (fails: boolean) => void;
const server = createServer((_, response) => void answer(response));
async function answer(response: ServerResponse): Promise<void> {
  const work = new Promise<string>((resolve, reject) => {
    end = (fails) => (fails ? reject(new Error('the store said no')) : resolve('kept'));
  });
  const said = await keptAwake(response, work, 20).catch((error: Error) => error.message);
  response.writeHead(201).end(said);
}
let base: string;
beforeAll(async () => {
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  base = `http://127.0.0.1:${(server.address() as { port: number }).port}`;
});
afterAll(() => new Promise((resolve) => server.close(resolve)));

const textOf = async (response: IncomingMessage): Promise<string> => {
  let text = '';
  for await (const piece of response) text += String(piece);
  return text;
};

describe('an answer that takes its time', () => {
  it.each([
    ['comes', false, 'kept'],
    ['fails', true, 'the store said no'],
  ])('gives signs of life until it %s, and none after', async (_, fails, text) => {
    const signs: number[] = [];
    const response = await new Promise<IncomingMessage>((resolve, reject) => {
      const request = get(base, resolve).on('error', reject);
      request.on('information', ({ statusCode }) => {
        signs.push(statusCode);
        if (signs.length === 3) end(fails);
      });
    });
    expect([response.statusCode, await textOf(response)]).toEqual([201, text]);
    expect(signs).toEqual([102, 102, 102]);
  });
  it('is read past them by a browser’s own way of asking', async () => {
    const asked = fetch(base);
    setTimeout(() => end(false), 200);
    const response = await asked;
    expect([response.status, await response.text()]).toEqual([201, 'kept']);
  });
});
