import { decodeHTML } from 'entities';
import { boundWords } from '../bound-words.js';

interface CueText {
  readonly text: string;
  readonly speaker: string | null;
  readonly stamps: readonly { readonly at: number; readonly startMs: number }[];
}

const TAG = /<([^<>]*)>/g;
const VOICE = /^v(?:\.\S*)?\s+(\S.*)$/is;
const INNER_STAMP = /^(?:(\d{2,}):)?([0-5]\d):([0-5]\d)\.(\d{3})$/;
const KNOWN_TAG = /^\/?(?:[cibuv]|ruby|rt|lang|font|span|em|strong|br\/?|s)(?:[.\s=].*)?$/is;

/**
 * Plain words of a cue's payload: voice spans give the speaker, time stamps inside the cue give word times, other tags
 * fall away, character references are resolved. Anything between angle brackets that is no tag stays as it was typed.
 * Where one cue holds several voices, the caller gets one part for each.
 */
export function parseCueText(payload: string): CueText[] {
  const parts: { text: string; speaker: string | null; stamps: { at: number; startMs: number }[] }[] = [];
  let current = { text: '', speaker: null as string | null, stamps: [] as { at: number; startMs: number }[] };
  const flush = (): void => {
    if (current.text.trim() !== '') parts.push(current);
  };
  let last = 0;
  for (const match of payload.matchAll(TAG)) {
    const inner = match[1]!.trim();
    const stamp = INNER_STAMP.exec(inner);
    if (stamp === null && !KNOWN_TAG.test(inner)) continue; // "<3" or "a < b > c": typed, not marked up
    current.text += boundWords(decodeHTML(payload.slice(last, match.index)));
    last = match.index + match[0].length;
    if (stamp !== null) {
      const [, h, m, s, f] = stamp;
      const startMs = ((Number(h ?? 0) * 60 + Number(m)) * 60 + Number(s)) * 1_000 + Number(f);
      current.stamps.push({ at: current.text.length, startMs });
    } else if (VOICE.test(inner)) {
      flush();
      current = { text: '', speaker: cleanSpeaker(decodeHTML(VOICE.exec(inner)![1]!)), stamps: [] };
    } else if (/^\/v$/i.test(inner)) {
      flush();
      current = { text: '', speaker: null, stamps: [] };
    } else if (/^br\/?$/i.test(inner)) {
      current.text += ' ';
    }
  }
  current.text += boundWords(decodeHTML(payload.slice(last)));
  flush();
  return parts;
}

/** A name begins with a capital, where its script has them; where it has none, names of at most two words are taken for one. */
const NAME = String.raw`(?:\p{Lu}[\p{L}\p{M}\p{N}_.'’-]*)`;
const CASELESS = String.raw`(?:\p{Lo}[\p{Lo}\p{M}.'’-]*)`;
const LABEL = new RegExp(
  String.raw`^\s*(?:>>+\s*)?(${NAME}(?:\s+(?:${NAME}|\d{1,3}|of|the|van|de|von)){0,3}|${CASELESS}(?:\s+(?:${CASELESS}|\d{1,3}))?)\s*:\s+(?=\S)`,
  'u',
);
const NOT_NAMES =
  /^(?:note|warning|question|answer|so|and|but|the|this|that|here|now|first|second|third|example|tip|ps|step|number|rule|today|yes|no|ok|okay|well|look|listen)$/i;

/**
 * A speaker's label typed at the start of a line ("Tamsin: So…", ">> OBI: Yes"), split from what was said.
 * Labels are capitalised, at most four words, and not a word that people put before a colon anyway.
 */
export function splitSpeakerLabel(text: string): { speaker: string | null; text: string } {
  const match = LABEL.exec(text);
  if (match === null || NOT_NAMES.test(match[1]!)) return { speaker: null, text: text.replace(/^\s*>>+\s*/, '') };
  return { speaker: cleanSpeaker(match[1]!), text: text.slice(match[0].length) };
}

export function cleanSpeaker(name: string): string | null {
  const cleaned = name.replace(/\s+/g, ' ').trim();
  return cleaned === '' ? null : cleaned.slice(0, 120);
}
