import { formatLength, formatTimecode } from '../time/timecode.js';
import { writeCsv } from './csv.js';

/** One passage for the editor's desk. */
export interface CutSheetRow {
  readonly kind: string;
  readonly startMs: number;
  readonly endMs: number;
  /** Less than from start to end where something is cut out. */
  readonly playedMs: number;
  readonly firstWords: string;
  readonly lastWords: string;
  readonly title: string;
  readonly description: string;
  readonly keywords: readonly string[];
  readonly coverLine: string;
  readonly reason: string;
}

export const CUT_SHEET_HEADER = ['kind', 'start', 'stop', 'length', 'first words', 'last words', 'title', 'description', 'keywords', 'cover line', 'reason'];

/** The cells of a row as they stand in CSV and in the printable page; times as hh:mm:ss.ttt. */
export function cutSheetCells(row: CutSheetRow): string[] {
  return [
    row.kind,
    formatTimecode(row.startMs, 'vtt'),
    formatTimecode(row.endMs, 'vtt'),
    formatLength(row.playedMs),
    row.firstWords,
    row.lastWords,
    row.title,
    row.description,
    row.keywords.join(', '),
    row.coverLine,
    row.reason,
  ];
}

export function cutSheetCsv(rows: readonly CutSheetRow[]): string {
  return writeCsv(CUT_SHEET_HEADER, [...rows].sort((a, b) => a.startMs - b.startMs).map(cutSheetCells));
}

/** First or last words of a line, for finding the place in the sound. */
export function edgeWords(words: readonly string[], side: 'first' | 'last', most = 7): string {
  return (side === 'first' ? words.slice(0, most) : words.slice(-most)).join(' ');
}
