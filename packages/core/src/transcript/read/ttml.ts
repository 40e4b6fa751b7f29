import { SaxesParser, type SaxesAttributeNS, type SaxesTagNS } from 'saxes';
import { boundWords } from '../bound-words.js';
import { TranscriptRefusedError } from '../types.js';
import { CueList, type ReadCues } from './cue-list.js';
import { cleanSpeaker } from './cue-text.js';
import { ttmlTime, type TtmlClock } from './ttml-time.js';

const TT = 'http://www.w3.org/ns/ttml';
const PARAMETER = `${TT}#parameter`;
const METADATA = `${TT}#metadata`;
const XML = 'http://www.w3.org/XML/1998/namespace';
/** Elements stand in each other only so deep in anything that somebody meant. */
const DEEPEST = 60;

/** What an element hands down: when it is on, and who speaks. */
interface Frame {
  readonly name: string;
  readonly beginMs: number;
  readonly endMs: number | null;
  readonly agent: string | null;
  readonly keepsSpace: boolean;
  readonly inSequence: boolean;
  /** Where the next child of a sequence begins. */
  nextMs: number;
}

interface OpenCue {
  readonly line: number;
  readonly frame: Frame;
  /** The paragraph has a time of its own. */
  readonly timed: boolean;
  text: string;
  readonly stamps: { at: number; startMs: number; endMs: number | null }[];
}

/** Words of one paragraph that have times of their own; a second of the fastest talk has ten. */
const MOST_SPANS = 200_000;

/** Begins like TTML: a root element named tt, after whatever may stand before it. */
export const isTtml = (text: string): boolean => /^\s*(?:<\?xml[^>]*\?>\s*)?(?:<!--(?:(?!-->)[\s\S])*-->\s*)*<(?:[\w.-]+:)?tt[\s>]/.test(text.slice(0, 8_000));

/**
 * Reads Timed Text Markup (W3C TTML2, and IMSC 1.1, which is a profile of it): `p` elements with `begin`, `end` or `dur` as clock or
 * offset times, nested times, parallel and sequential containers, spans with times of their own, line breaks, `ttm:agent` for who
 * speaks. Only media time counts; SMPTE and clock time bases are refused, since they say nothing of a place in the file.
 * @throws TranscriptRefusedError `bad-markup`, `bad-time`, `bad-field` or `too-long`, with the line
 */
export function readTtml(text: string): ReadCues {
  return new TtmlReader(text).read();
}

class TtmlReader {
  private readonly found = new CueList();
  private readonly parser = new SaxesParser({ xmlns: true, position: true });
  private readonly frames: Frame[] = [];
  private readonly agents = new Map<string, string>();
  private readonly wanted: { readonly cue: number; readonly agent: string }[] = [];
  private clock: TtmlClock = { frameRate: 30, tickRate: 1 };
  private cue: OpenCue | null = null;
  private agentId: string | null = null;
  private agentName = '';
  private inAgentName = false;

  constructor(private readonly text: string) {}

  read(): ReadCues {
    const { parser } = this;
    let fault: TranscriptRefusedError | null = null;
    const guarded =
      <T>(act: (value: T) => void) =>
      (value: T): void => {
        if (fault !== null) return;
        try {
          act(value);
        } catch (error) {
          if (!(error instanceof TranscriptRefusedError)) throw error;
          fault = error;
        }
      };
    parser.on('error', (error) => (fault ??= new TranscriptRefusedError(parser.line, 'bad-markup', String(error.message).replace(/^\d+:\d+: /, ''))));
    parser.on(
      'opentag',
      guarded((tag: SaxesTagNS) => this.open(tag)),
    );
    parser.on(
      'closetag',
      guarded((tag: SaxesTagNS) => this.close(tag)),
    );
    parser.on(
      'text',
      guarded((said: string) => this.said(said)),
    );
    parser.on(
      'cdata',
      guarded((said: string) => this.said(said)),
    );
    // Piece by piece, so that what is refused early is not read to its end.
    for (let from = 0; from < this.text.length && fault === null; from += 65_536) parser.write(this.text.slice(from, from + 65_536));
    if (fault === null) parser.close();
    if (fault !== null) throw fault;
    const cues = [...this.found.cues];
    for (const { cue, agent } of this.wanted) cues[cue] = { ...cues[cue]!, speaker: cleanSpeaker(this.agents.get(agent) ?? agent) };
    return { cues, repairs: this.found.repairs };
  }

  private open(tag: SaxesTagNS): void {
    if (this.frames.length >= DEEPEST)
      throw new TranscriptRefusedError(this.parser.line, 'bad-markup', `elements stand more than ${DEEPEST} deep in each other`);
    if (tag.uri === METADATA) return this.openMetadata(tag);
    if (this.frames.length === 0) this.readRoot(tag);
    const frame = this.frameOf(tag);
    this.frames.push(frame);
    if (tag.local === 'p' && tag.uri === TT) this.cue = { line: this.parser.line, frame, timed: this.hasTime(tag), text: '', stamps: [] };
    else if (this.cue !== null && tag.local === 'br') this.cue.text += ' ';
    else if (this.cue !== null && tag.local === 'span' && this.hasTime(tag)) this.stamp(frame);
  }

  private close(tag: SaxesTagNS): void {
    if (tag.uri === METADATA) return this.closeMetadata(tag);
    const frame = this.frames.pop();
    const above = this.frames.at(-1);
    if (above !== undefined && frame?.endMs != null) above.nextMs = frame.endMs;
    if (tag.local !== 'p' || tag.uri !== TT || this.cue === null) return;
    this.flush(this.cue);
    this.cue = null;
  }

  /** A paragraph without a time of its own, whose spans have some, begins with the first of them. */
  private flush({ line, frame, timed, text, stamps }: OpenCue): void {
    if (text.trim() === '') return;
    if (frame.agent !== null) this.wanted.push({ cue: this.found.cues.length, agent: frame.agent });
    const first = stamps[0];
    const untimed = !timed && first !== undefined;
    this.found.add({
      line,
      startMs: untimed ? first.startMs : frame.beginMs,
      endMs: untimed ? (stamps.at(-1)!.endMs ?? null) : frame.endMs,
      speaker: null,
      text,
      ...(stamps.length === 0 ? {} : { stamps }),
    });
  }

  private said(given: string): void {
    if (this.inAgentName) {
      this.agentName = (this.agentName + given).slice(0, 500);
      return;
    }
    const { cue } = this;
    if (cue === null) return;
    const keeps = this.frames.at(-1)?.keepsSpace === true;
    const text = boundWords(keeps ? given.replace(/\s/g, ' ') : given.replace(/\s+/g, ' '));
    // What is between two elements only for the eye is one space, or none at the beginning.
    const shown = /\s$|^$/.test(cue.text) ? text.trimStart() : text;
    this.found.expect(cue.text.length + shown.length, cue.line);
    cue.text += shown;
  }

  private stamp(frame: Frame): void {
    if (this.cue!.stamps.length >= MOST_SPANS) throw new TranscriptRefusedError(this.parser.line, 'too-long', `more than ${MOST_SPANS} spans in one paragraph`);
    this.cue!.stamps.push({ at: this.cue!.text.length, startMs: frame.beginMs, endMs: frame.endMs });
  }

  private readRoot(tag: SaxesTagNS): void {
    const at = (name: string): string | undefined => valueOf(tag, PARAMETER, name);
    const line = this.parser.line;
    if (tag.local !== 'tt' || tag.uri !== TT) throw new TranscriptRefusedError(line, 'bad-markup', `the root is <${tag.name}>, not <tt> of ${TT}`);
    const base = at('timeBase') ?? 'media';
    if (base !== 'media')
      throw new TranscriptRefusedError(line, 'bad-field', `times of base “${base}” say no place in the recording; only “media” does`, 'ttp:timeBase');
    const number = (name: string, usual: number): number => {
      const value = at(name);
      if (value === undefined) return usual;
      if (!/^\d{1,9}$/.test(value) || Number(value) === 0) throw new TranscriptRefusedError(line, 'bad-field', `“${value}” is no rate`, `ttp:${name}`);
      return Number(value);
    };
    const multiplier = at('frameRateMultiplier') ?? '1 1';
    const [, up = '1', down = '1'] = /^(\d{1,6})[ :](\d{1,6})$/.exec(multiplier) ?? [];
    if (Number(up) === 0 || Number(down) === 0)
      throw new TranscriptRefusedError(line, 'bad-field', `“${multiplier}” is no multiplier`, 'ttp:frameRateMultiplier');
    const frameRate = (number('frameRate', 30) * Number(up)) / Number(down);
    // TTML2, 7.2.13: without a tick rate it is the frame rate where one is given, else one tick a second.
    this.clock = { frameRate, tickRate: number('tickRate', at('frameRate') === undefined ? 1 : frameRate) };
  }

  private frameOf(tag: SaxesTagNS): Frame {
    const above = this.frames.at(-1);
    const base = above === undefined ? 0 : above.inSequence ? above.nextMs : above.beginMs;
    const time = (name: string): number | null => {
      const value = valueOf(tag, '', name);
      if (value === undefined || !TIMED.has(tag.local)) return null;
      const ms = ttmlTime(value.trim(), this.clock);
      if (ms === null)
        throw new TranscriptRefusedError(this.parser.line, 'bad-time', `“${value.slice(0, 40)}” is no time; expected 00:00:01.500 or 1.5s`, name);
      return ms;
    };
    const [begin, end, dur] = [time('begin'), time('end'), time('dur')];
    const beginMs = base + (begin ?? 0);
    const ends = [...(end === null ? [] : [base + end]), ...(dur === null ? [] : [beginMs + dur])];
    const endMs = ends.length === 0 ? null : Math.min(...ends);
    const space = valueOf(tag, XML, 'space');
    return {
      name: tag.local,
      beginMs,
      endMs: endMs ?? above?.endMs ?? null,
      agent: valueOf(tag, METADATA, 'agent')?.trim().split(/\s+/)[0] || (above?.agent ?? null),
      keepsSpace: space === undefined ? (above?.keepsSpace ?? false) : space === 'preserve',
      inSequence: valueOf(tag, '', 'timeContainer') === 'seq',
      nextMs: beginMs,
    };
  }

  private hasTime(tag: SaxesTagNS): boolean {
    return ['begin', 'end', 'dur'].some((name) => valueOf(tag, '', name) !== undefined);
  }

  private openMetadata(tag: SaxesTagNS): void {
    if (tag.local === 'agent') [this.agentId, this.agentName] = [valueOf(tag, XML, 'id') ?? null, ''];
    this.inAgentName = tag.local === 'name' && this.agentId !== null && this.agentName === '';
  }

  private closeMetadata(tag: SaxesTagNS): void {
    this.inAgentName = false;
    if (tag.local !== 'agent' || this.agentId === null) return;
    if (this.agentName.trim() !== '' && this.agents.size < 10_000) this.agents.set(this.agentId, this.agentName);
    this.agentId = null;
  }
}

/** Elements whose times mean something. */
const TIMED: ReadonlySet<string> = new Set(['body', 'div', 'p', 'span', 'br']);

function valueOf(tag: SaxesTagNS, uri: string, local: string): string | undefined {
  for (const one of Object.values(tag.attributes) as SaxesAttributeNS[]) if (one.uri === uri && one.local === local) return one.value;
  return undefined;
}
