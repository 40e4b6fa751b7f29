import 'reflect-metadata';
import { Text, TextList } from '@sift-reel/forms';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { WriterError, type WrittenWords } from './writer.js';

class WrittenForm {
  @TextList({ maxItems: 5, min: 1, max: 1_000 }) titles: string[];
  @Text({ max: 20_000 }) description: string;
  @TextList({ maxItems: 60, max: 60 }) hashtags: string[];
  @TextList({ maxItems: 30, max: 60 }) keywords: string[];
  @Text({ max: 80 }) coverLine: string;
}

/** Reads what a writing service sent. What is left out is empty; what is of another form is refused with its field. @throws WriterError */
export function readWrittenWords(raw: string): WrittenWords {
  let said: unknown;
  try {
    said = JSON.parse(raw);
  } catch {
    throw new WriterError('The writing service answered with something that is not JSON.', false);
  }
  if (typeof said !== 'object' || said === null || Array.isArray(said))
    throw new WriterError('The writing service answered with something that is not an object.', false);
  const form = plainToInstance(WrittenForm, { titles: [], description: '', hashtags: [], keywords: [], coverLine: '', ...said });
  const [wrong] = validateSync(form);
  if (wrong !== undefined) {
    const detail = Object.values(wrong.constraints ?? { form: 'is not as described' })[0]!;
    throw new WriterError(`The writing service's answer cannot be used: ${wrong.property} ${detail}.`, false);
  }
  const { titles, description, hashtags, keywords, coverLine } = form;
  if (titles.length === 0 && description.trim() === '') throw new WriterError('The writing service had nothing to say.', false);
  return { titles, description, hashtags: hashtags.map((tag) => tag.replace(/^#/, '')), keywords, coverLine };
}
