import { CUT_SHEET_HEADER, cutSheetCells, type CutSheetRow, formatLength } from '@sift-reel/core';

const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };
const escape = (text: string): string => text.replace(/[&<>"']/g, (c) => ESCAPES[c]!);

/** The editor's cut sheet as a page for paper: landscape, a passage a row, no script. */
export function cutSheetPage(title: string, durationMs: number, rows: readonly CutSheetRow[]): string {
  const body = [...rows]
    .sort((a, b) => a.startMs - b.startMs)
    .map(
      (row) =>
        `<tr>${cutSheetCells(row)
          .map((cell, i) => `<td${i >= 1 && i <= 3 ? ' class="time"' : ''}>${escape(cell)}</td>`)
          .join('')}</tr>`,
    )
    .join('\n');
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>Cut sheet: ${escape(title)}</title>
<style>
@page { size: A4 landscape; margin: 12mm }
body { font: 10px/1.35 system-ui, sans-serif; color: #23201b; background: #fffdf8; margin: 16px }
h1 { font-size: 17px; margin: 0 0 2px } p { color: #6f675a; margin: 0 0 12px }
table { border-collapse: collapse; width: 100% } th, td { border: 1px solid #ddd4c3; padding: 4px 5px; vertical-align: top; text-align: left }
th { background: #f3efe6 } .time { font-family: ui-monospace, monospace; white-space: nowrap } tr { break-inside: avoid }
</style>
<h1>Cut sheet: ${escape(title)}</h1><p>${rows.length} passage${rows.length === 1 ? '' : 's'} of ${formatLength(durationMs)} · times from the start of the recording</p>
<table><thead><tr>${CUT_SHEET_HEADER.map((name) => `<th>${name}</th>`).join('')}</tr></thead><tbody>
${body || `<tr><td colspan="${CUT_SHEET_HEADER.length}">No candidate of this recording is kept yet.</td></tr>`}
</tbody></table></html>`;
}
