import { SaxesParser, type SaxesTagNS } from 'saxes';
import type { TextRun } from '../../copy/translation/units.js';
import { XLIFF, type XliffAnswer, XliffRefusedError } from './types.js';

/** More is no translation of a short. */
const [MOST_CHARACTERS, MOST_UNITS] = [2_000_000, 5_000];
const VERSIONS = new Set(['2.0', '2.1']);
const LANGUAGE = /^[A-Za-z]{2,3}(?:-[A-Za-z0-9]{1,8})*$/;

interface OpenUnit {
  readonly id: string;
  readonly line: number;
  readonly source: TextRun[];
  readonly target: TextRun[];
  written: boolean;
}

/**
 * Reads XLIFF 2.0 and 2.1. Units may stand in groups; a unit that was cut into segments is put together again, with what stands
 * between them; text inside a `pc`, or between `sc` and `ec`, is set apart; other codes, notes and modules are passed over.
 * @throws XliffRefusedError with the line
 */
export function readXliff(text: string): XliffAnswer {
  if (text.length > MOST_CHARACTERS) throw new XliffRefusedError(1, 'too-long', `more than ${MOST_CHARACTERS} characters`);
  const reader = new Reader();
  const parser = new SaxesParser({ xmlns: true, position: true });
  const line = (): number => Math.max(1, parser.line);
  // What is wrong is thrown by the parser or by the reader, whichever sees it first; nothing is read after it.
  parser.on('error', (error) => {
    throw error instanceof XliffRefusedError ? error : new XliffRefusedError(line(), 'bad-xml', error.message.replace(/^\d+:\d+: /, ''));
  });
  parser.on('doctype', () => {
    throw new XliffRefusedError(line(), 'bad-xml', 'a document type is not taken');
  });
  parser.on('opentag', (tag) => reader.open(tag, line()));
  parser.on('closetag', (tag) => reader.close(tag));
  parser.on('text', (piece) => reader.text(piece));
  parser.on('cdata', (piece) => reader.text(piece));
  parser.write(text.replace(/^\ufeff/, '')).close();
  return reader.answer();
}

class Reader {
  private sourceLanguage = '';
  private targetLanguage = '';
  private fileId: string | null = null;
  private readonly units = new Map<string, OpenUnit>();
  private unit: OpenUnit | null = null;
  /** Where text goes, with the depth at which it began. */
  private into: TextRun[] | null = null;
  private emphasis = 0;
  private readonly spanning = new Set<string>();
  private root = true;

  open(tag: SaxesTagNS, line: number): void {
    const value = (name: string): string => tag.attributes[name]?.value ?? '';
    if (this.root) {
      this.root = false;
      if (tag.uri !== XLIFF || tag.local !== 'xliff') throw new XliffRefusedError(line, 'not-xliff', `<${tag.name}> where <xliff> of XLIFF 2 was expected`);
      if (!VERSIONS.has(value('version')))
        throw new XliffRefusedError(line, 'bad-version', `version ${value('version') || 'missing'}; 2.0 or 2.1 was expected`);
      [this.sourceLanguage, this.targetLanguage] = [value('srcLang'), value('trgLang')];
      for (const [name, language] of [['srcLang', this.sourceLanguage] as const, ['trgLang', this.targetLanguage] as const])
        if (!LANGUAGE.test(language)) throw new XliffRefusedError(line, 'no-language', `${name} is ${language === '' ? 'missing' : 'no language'}`);
      return;
    }
    if (tag.uri !== XLIFF) return;
    switch (tag.local) {
      case 'file':
        this.fileId ??= value('id');
        return;
      case 'unit':
        this.openUnit(value('id'), line);
        return;
      case 'source':
      case 'target':
        if (this.unit === null) return;
        this.into = tag.local === 'source' ? this.unit.source : this.unit.target;
        if (tag.local === 'target') this.unit.written = true;
        return;
      case 'pc':
        this.emphasis += 1;
        return;
      case 'sc':
        this.spanning.add(value('id'));
        return;
      case 'ec':
        this.spanning.delete(value('startRef'));
        return;
      case 'cp': {
        const code = /^[0-9A-Fa-f]{1,6}$/.test(value('hex')) ? parseInt(value('hex'), 16) : 0xfffd;
        this.text(code <= 0x10ffff ? String.fromCodePoint(code) : '\ufffd');
        return;
      }
      default:
    }
  }

  close(tag: SaxesTagNS): void {
    if (tag.uri !== XLIFF) return;
    if (tag.local === 'unit') this.unit = null;
    if (tag.local === 'source' || tag.local === 'target') {
      this.into = null;
      this.spanning.clear();
      this.emphasis = 0;
    }
    if (tag.local === 'pc') this.emphasis -= 1;
  }

  text(piece: string): void {
    if (this.into === null || piece === '') return;
    const emphasis = this.emphasis > 0 || this.spanning.size > 0;
    const last = this.into.at(-1);
    if (last?.emphasis === emphasis) this.into[this.into.length - 1] = { text: last.text + piece, emphasis };
    else this.into.push({ text: piece, emphasis });
  }

  answer(): XliffAnswer {
    if (this.fileId === null) throw new XliffRefusedError(1, 'no-file', 'no <file> stands in it');
    const units = [...this.units.values()].map(({ id, line: at, source, target, written }) => ({ id, line: at, source, target: written ? target : null }));
    return { id: this.fileId, sourceLanguage: this.sourceLanguage, targetLanguage: this.targetLanguage, units };
  }

  private openUnit(id: string, line: number): void {
    if (id === '') throw new XliffRefusedError(line, 'no-id', 'a unit has no id');
    if (this.units.has(id)) throw new XliffRefusedError(line, 'twice', `unit ${id} stands in it twice`);
    if (this.units.size >= MOST_UNITS) throw new XliffRefusedError(line, 'too-long', `more than ${MOST_UNITS} units`);
    this.unit = { id, line, source: [], target: [], written: false };
    this.units.set(id, this.unit);
  }
}

/** The text of runs. Of a caption, what is set apart and has lost its brackets is given them back. */
export const textOfRuns = (runs: readonly TextRun[], caption: boolean): string =>
  runs
    .map(({ text, emphasis }) => (caption && emphasis && !/^\s*[[♪]/.test(text) && text.trim() !== '' ? `[${text}]` : text))
    .join('')
    .replace(/[^\S\n]+/g, ' ')
    .trim();
