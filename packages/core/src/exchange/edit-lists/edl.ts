import type { FrameRate, FrameSpan } from '../../cut/frames.js';
import { canDrop, formatSmpte, parseSmpte } from '../../cut/smpte.js';
import { type EditList, type EditPassage, EditListRefusedError } from './types.js';

/** Timelines begin at one hour. Common practice. */
const FIRST_HOUR = '01:00:00:00';
const MOST_EVENTS = 999;
const REEL_LETTERS = 8;

/** A name of tape: capitals and figures, eight at most, as the format has room for. */
function reelOf(source: string): string {
  const letters = source
    .replace(/\.[^.]*$/, '')
    .normalize('NFKD')
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, '');
  return (letters || 'SOURCE').slice(0, REEL_LETTERS).padEnd(REEL_LETTERS);
}

/** One line, so that nothing in a title becomes a line of its own. */
const oneLine = (text: string): string => text.replace(/\s+/g, ' ').trim();

/**
 * An edit decision list in the layout of CMX 3600: an event a span, source and record in SMPTE timecode, names as comments. Numbers
 * are dropped where the rate drops them (29.97, 59.94). CRLF line ends.
 * @throws EditListRefusedError for more events than the format can number
 */
export function writeEdl({ title, source, rate, pictured, passages }: EditList): string {
  const drop = canDrop(rate);
  const count = passages.reduce((sum, { spans }) => sum + spans.length, 0);
  if (count > MOST_EVENTS) throw new EditListRefusedError(0, `an edit decision list numbers ${MOST_EVENTS} events, and there are ${count}`);
  const code = (frame: number): string => formatSmpte(frame, rate, drop);
  const lines = [`TITLE: ${oneLine(title)}`, `FCM: ${drop ? 'DROP FRAME' : 'NON-DROP FRAME'}`, ''];
  let at = parseSmpte(drop ? FIRST_HOUR.replace(/:(\d\d)$/, ';$1') : FIRST_HOUR, rate)!;
  let event = 0;
  for (const passage of passages)
    for (const { startFrame, endFrame } of passage.spans) {
      event += 1;
      const record = [at, (at += endFrame - startFrame)];
      const codes = [startFrame, endFrame, ...record].map(code).join(' ');
      lines.push(`${String(event).padStart(3, '0')}  ${reelOf(source)} ${(pictured ? 'AA/V' : 'AA').padEnd(5)} C        ${codes}`);
      lines.push(`* FROM CLIP NAME: ${oneLine(source)}`, `* COMMENT: ${oneLine(passage.title)}`);
    }
  return `${lines.join('\r\n')}\r\n`;
}

/** What an edit decision list says: spans of the source in their order, with the comments that name them. */
export interface ReadEdl {
  readonly title: string;
  readonly passages: readonly EditPassage[];
}

const EVENT = /^(\d{3,6})\s+(\S+)\s+(\S+)\s+(C|D|W\d{3}|K\S*)\s+(?:\d{3}\s+)?(\S+)\s+(\S+)\s+(\S+)\s+(\S+)\s*$/;

/**
 * Reads the layout of CMX 3600. Events that one comment names in a row are one passage.
 * @param rate that its timecode counts in: the format does not say it
 * @throws EditListRefusedError with the line: not an event, a transition that is no cut, a timecode that is none, an end before its start
 */
export function readEdl(text: string, rate: FrameRate): ReadEdl {
  let title = '';
  let drop = false;
  const spans: { span: FrameSpan; title: string }[] = [];
  let last = '';
  for (const [i, raw] of text.split(/\r\n|\r|\n/).entries()) {
    const line = raw.trim();
    const refuse = (detail: string): never => {
      throw new EditListRefusedError(i + 1, detail);
    };
    if (line === '') continue;
    if (line.startsWith('TITLE:')) title = line.slice(6).trim();
    else if (line.startsWith('FCM:')) drop = line.slice(4).trim() === 'DROP FRAME';
    else if (line.startsWith('*')) {
      const named = /^\*\s*COMMENT:\s*(.*)$/.exec(line)?.[1];
      const before = spans.at(-1);
      if (named !== undefined && before !== undefined) before.title = named;
    } else if (/^\d/.test(line)) {
      const found = EVENT.exec(line) ?? refuse('is no event: number, reel, channels, transition and four timecodes');
      if (found[4] !== 'C') refuse(`“${found[4]!}” is no cut; only cuts can be taken over`);
      const [startFrame, endFrame] = [found[5]!, found[6]!].map((code) => {
        const written = drop ? code.replace(/[:.](\d\d)$/, ';$1') : code;
        return parseSmpte(written, rate) ?? refuse(`“${code}” is no timecode at this rate`);
      }) as [number, number];
      if (endFrame <= startFrame) refuse('ends before it starts');
      // Picture and sound of one event may stand on a line each.
      const event = found.slice(5, 9).join(' ');
      if (event === last) continue;
      last = event;
      spans.push({ span: { startFrame, endFrame }, title: '' });
    } else refuse('is neither an event nor a comment');
  }
  if (spans.length === 0) throw new EditListRefusedError(0, 'it holds no events');
  return { title, passages: passagesOf(spans) };
}

/** Spans that share a name and follow one another are parts of one passage; those without a name stand alone. */
export function passagesOf(spans: readonly { readonly span: FrameSpan; readonly title: string }[]): EditPassage[] {
  const passages: { title: string; spans: FrameSpan[] }[] = [];
  for (const { span, title } of spans) {
    const last = passages.at(-1);
    if (last !== undefined && title !== '' && last.title === title) last.spans.push(span);
    else passages.push({ title, spans: [span] });
  }
  return passages;
}
