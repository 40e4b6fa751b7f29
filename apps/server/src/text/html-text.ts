import { TranscriptRefusedError } from '@sift-reel/core/reading';
import { Parser } from 'htmlparser2';

/** Looked at to tell what a file is. */
const BEGINNING = 1_024;
const PAGE = /<(?:!doctype\s+html|html|head|body|main|article|section|div|p|h[1-6]|cite|time|ol|ul|dl|table)\b/i;
/** TTML, and anything else that is XML and no page. */
const OTHER_XML = /<(?:\w+:)?tt\b|<rss\b/i;
const CHARSET = /charset\s*=\s*["']?([\w.:-]{1,40})/i;

/** What is in these is not said. */
const UNSAID = new Set(['head', 'script', 'style', 'template', 'noscript', 'nav', 'footer', 'button', 'select', 'svg']);
const BLOCKS = new Set(
  'address article aside blockquote body br dd div dl dt figure h1 h2 h3 h4 h5 h6 header hr li main ol p pre section table tbody td th thead tr ul'.split(' '),
);
const TIME = /^(?:\d{1,2}:)?\d{1,3}:\d{2}(?:[.,]\d{1,3})?$/;
/** Of trimmed text: what stands between when it begins and when it ends, or nothing. */
const BETWEEN = /^(?:[-–—→]|to)?$/;
/** A page has some; nesting beyond is an attack. */
const MOST_DEEP = 500;

/** Begins like a web page, or a piece of one. */
export function isHtml(bytes: Uint8Array): boolean {
  const beginning = new TextDecoder('latin1').decode(bytes.subarray(0, BEGINNING)).replace(/^(?:ï»¿)?\s+/, '');
  return beginning.replace(/^ï»¿/, '').startsWith('<') && !OTHER_XML.test(beginning) && PAGE.test(beginning);
}

/**
 * What a transcript in HTML says, a line for each block. After the podcast namespace's transcript in HTML (from memory), `cite` names who
 * speaks and `time` says when; they head what follows as “Ann Lee [0:03]”.
 * @throws TranscriptRefusedError `not-text` for a page that nests beyond any transcript
 */
export function htmlText(bytes: Uint8Array): string {
  const lines: string[] = [];
  let [line, cited, timed, written] = ['', '', '', ''];
  let open: 'cite' | 'time' | null = null;
  let [unsaid, deep] = [0, 0];
  const end = (): void => {
    const said = line.replace(/\s+/g, ' ').trim();
    if (said !== '') lines.push(said);
    line = '';
  };
  /** Who speaks and when, on a line of their own, before what is said. */
  const head = (): void => {
    if (cited === '' && timed === '') return;
    end();
    lines.push([cited, timed === '' ? '' : `[${timed}]`].filter((part) => part !== '').join(' ') + (timed === '' ? ':' : ''));
    [cited, timed] = ['', ''];
  };
  const parser = new Parser({
    onopentagname(name) {
      deep += 1;
      if (deep > MOST_DEEP) throw new TranscriptRefusedError(1, 'not-text', 'the page nests deeper than any transcript');
      if (UNSAID.has(name)) unsaid += 1;
      if (BLOCKS.has(name)) end();
      if (name === 'cite' || name === 'time') {
        if (name === 'cite' && cited !== '') head(); // somebody who says nothing
        if (name === 'time') written = '';
        end();
        open = name;
      }
    },
    ontext(text) {
      if (unsaid > 0) return;
      if (open === 'cite') cited += text;
      else if (open === 'time') written += text;
      else {
        const said = text.trim();
        if (cited + timed !== '' && BETWEEN.test(said)) return;
        if (said !== '') head();
        line += text;
      }
    },
    onclosetag(name) {
      deep -= 1;
      if (UNSAID.has(name)) unsaid = Math.max(0, unsaid - 1);
      if (BLOCKS.has(name)) end();
      if (name === 'cite') cited = cited.replace(/\s+/g, ' ').trim().replace(/\s*:$/, '');
      if (name === 'time') {
        const said = written.trim();
        if (!TIME.test(said))
          line += said; // a day, or “now”
        else if (timed === '') timed = said; // of two, when it begins
      }
      if (name === open) open = null;
    },
  });
  parser.end(decoded(bytes));
  end();
  return lines.join('\n');
}

/** As the page says that it is written; UTF-8 where it says nothing that is known. */
function decoded(bytes: Uint8Array): string {
  const said = CHARSET.exec(new TextDecoder('latin1').decode(bytes.subarray(0, BEGINNING)))?.[1] ?? 'utf-8';
  try {
    return new TextDecoder(said).decode(bytes);
  } catch {
    return new TextDecoder().decode(bytes);
  }
}
