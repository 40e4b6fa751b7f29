import { readFile } from 'node:fs/promises';
import { readTranscript, type ReadTranscript, TranscriptRefusedError } from '@sift-reel/core';
import { BadInputError } from './errors.js';

/** @throws BadInputError when the file cannot be read or is no transcript */
export async function readTranscriptFile(path: string): Promise<ReadTranscript> {
  let bytes: Buffer;
  try {
    bytes = await readFile(path);
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    throw new BadInputError(path, 1, code === 'ENOENT' ? 'no such file' : `cannot be read (${code ?? String(error)})`);
  }
  try {
    return readTranscript(bytes);
  } catch (error) {
    if (error instanceof TranscriptRefusedError) {
      throw new BadInputError(path, error.line, `${error.field === null ? '' : `${error.field}: `}${error.detail}`);
    }
    throw error;
  }
}
