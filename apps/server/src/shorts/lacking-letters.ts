import { ConflictException } from '@nestjs/common';

const MOST_NAMED = 8;

/** @throws ConflictException naming the letters that no font of ours can draw */
export function refuseLacking(letters: readonly string[]): void {
  if (letters.length === 0) return;
  const named = letters.slice(0, MOST_NAMED).join(' ') + (letters.length > MOST_NAMED ? ' …' : '');
  throw new ConflictException(`The fonts here cannot draw these letters, so no picture can be made of the short: ${named}. Its sound alone can.`);
}
