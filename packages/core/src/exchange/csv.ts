import Papa from 'papaparse';

type CsvCell = string | number | null;

/**
 * CSV by RFC 4180: CRLF line ends, quotes where needed, a header line, a byte order mark so that spreadsheets read UTF-8.
 * A text that a spreadsheet would run as a formula gets an apostrophe in front (common practice: OWASP, CSV injection); a cell
 * with a character at which some spreadsheets divide is quoted, so that none begins inside it.
 */
export function writeCsv(header: readonly string[], rows: readonly (readonly CsvCell[])[]): string {
  const safe = (cell: CsvCell): string => (typeof cell === 'string' ? cell.replace(/^(?=[=+\-@\t\r])/, "'") : cell === null ? '' : String(cell));
  const quotes = (cell: unknown): boolean => typeof cell === 'string' && /[;\t|]/.test(cell);
  return `\uFEFF${Papa.unparse({ fields: [...header], data: rows.map((row) => row.map(safe)) }, { newline: '\r\n', quotes })}\r\n`;
}
