/** No word of any language is this long; what is, was never meant as one (a key, a picture in letters), and would be slow to read. */
export const LONGEST_WORD = 120;

const TOO_LONG = new RegExp(`\\S{${LONGEST_WORD}}(?=\\S)`, 'g');

/** Text in which a run of letters without a space is divided after every 120. */
export function boundWords(text: string): string {
  return text.length <= LONGEST_WORD ? text : text.replace(TOO_LONG, '$& ');
}
