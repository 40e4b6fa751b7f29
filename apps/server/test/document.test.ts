import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import prettier from 'prettier';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { clientFrom } from '../../../scripts/api-client.mjs';
import { World } from './world.js';

const DOCUMENT = fileURLToPath(new URL('../../web/src/app/api.json', import.meta.url));
const CLIENT = fileURLToPath(new URL('../../web/src/app/generated-api.ts', import.meta.url));

let world: World;
beforeAll(async () => {
  world = await World.make();
});
afterAll(() => world.close());

describe('the API document', () => {
  it('is the one the web’s client was made from (else: npm run api-client)', async () => {
    expect((await world.owner.get('docs.json')).body).toEqual(JSON.parse(await readFile(DOCUMENT, 'utf8')));
  });
  it('gives the client that is in the repository (else: npm run api-client)', async () => {
    const made = await clientFrom(DOCUMENT);
    const formatted = await prettier.format(made, { ...(await prettier.resolveConfig(CLIENT)), filepath: CLIENT });
    expect(formatted).toBe(await readFile(CLIENT, 'utf8'));
  });
  it('is shown at /api/docs', async () => {
    const page = await world.owner.get('docs');
    expect([page.status, page.headers.get('content-type')]).toEqual([200, expect.stringContaining('text/html')]);
  });
});
