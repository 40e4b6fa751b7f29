import { rename, rm, writeFile } from 'node:fs/promises';
import { extname } from 'node:path';
import { type WrittenFormat, writeTranscript } from '@sift-reel/core';
import { BadInputError, UsageError } from './errors.js';
import { readTranscriptFile } from './read-file.js';

const FORMATS: Readonly<Record<string, WrittenFormat>> = { '.vtt': 'webvtt', '.srt': 'subrip', '.json': 'podcast-json', '.txt': 'stamped-text' };

/** `convert IN OUT`: any transcript format to the one that OUT's ending names. Writes all of OUT or nothing. */
export async function convert(args: readonly string[]): Promise<string> {
  const [input, output, ...more] = args;
  if (input === undefined || output === undefined || more.length > 0) throw new UsageError('convert takes IN and OUT');
  const format = FORMATS[extname(output).toLowerCase()];
  if (format === undefined) throw new UsageError(`“${output}” must end in ${Object.keys(FORMATS).join(', ')}`);
  const { transcript } = await readTranscriptFile(input);
  const partial = `${output}.partial`;
  try {
    await writeFile(partial, writeTranscript(transcript, format));
    await rename(partial, output);
  } catch (error) {
    await rm(partial, { force: true });
    throw new BadInputError(output, 1, `cannot be written (${(error as NodeJS.ErrnoException).code ?? String(error)})`);
  }
  return '';
}
