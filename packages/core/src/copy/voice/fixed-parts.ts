import type { Copy } from '../types.js';
import type { Voice } from './types.js';

/** The words as they are posted: the client's fixed parts stand under the text, each on a line of its own. */
export function asPosted(copy: Copy, { fixedParts }: Pick<Voice, 'fixedParts'>): Copy {
  const lines = fixedParts.filter((part) => part.trim() !== '');
  return lines.length === 0 ? copy : { ...copy, description: [copy.description, lines.join('\n')].filter((part) => part !== '').join('\n\n') };
}
