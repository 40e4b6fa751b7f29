import { runsOf, type TextUnit } from '../../copy/translation/units.js';
import { formatTimecode } from '../../time/timecode.js';
import { SIZE_RESTRICTION, XLIFF, type XliffJob } from './types.js';

/**
 * A short as XLIFF 2.1 (OASIS standard, 2018; its element names and order from memory): a unit a field and a caption, times and
 * limits as notes, limits also by the size restriction module, what is set apart as `pc`.
 */
export function writeXliff(job: XliffJob): string {
  const words = job.units.filter(({ time }) => time === null);
  const captions = job.units.filter(({ time }) => time !== null);
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<xliff xmlns="${XLIFF}" xmlns:slr="${SIZE_RESTRICTION}" version="2.1" srcLang="${attribute(job.sourceLanguage)}" trgLang="${attribute(job.targetLanguage)}">`,
    `  <file id="${attribute(job.id)}" original="${attribute(job.title)}">`,
    '    <slr:profiles generalProfile="xliff:codepoints"/>',
    ...group('words', words, job),
    ...group('captions', captions, job),
    '  </file>',
    '</xliff>',
    '',
  ].join('\n');
}

function group(id: string, units: readonly TextUnit[], job: XliffJob): string[] {
  return units.length === 0 ? [] : [`    <group id="${id}">`, ...units.flatMap((unit) => unitLines(unit, job)), '    </group>'];
}

function unitLines(unit: TextUnit, { targets, read }: XliffJob): string[] {
  const target = targets[unit.id] ?? '';
  const notes = [
    ...(unit.time === null
      ? []
      : [`<note category="time">${formatTimecode(unit.time.startMs, 'vtt')} --&gt; ${formatTimecode(unit.time.endMs, 'vtt')}</note>`]),
    ...(unit.limit === null ? [] : [`<note category="limit">at most ${unit.limit} characters</note>`]),
  ];
  const size = unit.limit === null ? '' : ` slr:sizeRestriction="${unit.limit}"`;
  const state = target === '' ? 'initial' : read ? 'reviewed' : 'translated';
  return [
    `      <unit id="${attribute(unit.id)}" name="${attribute(unit.name)}"${size}>`,
    ...(notes.length === 0 ? [] : ['        <notes>', ...notes.map((note) => `          ${note}`), '        </notes>']),
    `        <segment state="${state}">`,
    `          <source xml:space="preserve">${inline(unit.source)}</source>`,
    ...(target === '' ? [] : [`          <target xml:space="preserve">${inline(target)}</target>`]),
    '        </segment>',
    '      </unit>',
  ];
}

function inline(text: string): string {
  let codes = 0;
  return runsOf(text)
    .map((run) => (run.emphasis ? `<pc id="${(codes += 1)}" type="fmt" subType="xlf:i">${content(run.text)}</pc>` : content(run.text)))
    .join('');
}

/** Text of an element; what XML 1.0 cannot hold is a `cp` code (XLIFF 2.1, 4.2.3.1). */
const content = (text: string): string =>
  text
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    // eslint-disable-next-line no-control-regex -- just those
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, (one) => `<cp hex="${one.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}"/>`);

const attribute = (text: string): string =>
  text
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/"/g, '&quot;')
    // eslint-disable-next-line no-control-regex -- no attribute holds them
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(/[\t\n\r]/g, ' ');
