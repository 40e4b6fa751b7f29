import { type CandidateKind, type SignalName, SIGNALS, type SignalReading } from './types.js';

const KIND_LINES: Readonly<Record<CandidateKind, string>> = {
  answer: 'A question with its answer',
  story: 'A story',
  advice: 'Advice',
  opinion: 'A strong opinion',
  figures: 'Figures',
  emotion: 'A moment of feeling',
  humour: 'A laugh',
  passage: 'A passage',
};

/**
 * Why this one, in a sentence: what it is, and its two strongest signals in their own words.
 * @param whole what a long cut holds of the chapters
 */
export function buildReason(kind: CandidateKind, readings: Readonly<Record<SignalName, SignalReading>>, wanted: boolean, whole: string | null = null): string {
  const strongest = SIGNALS.filter((name) => name !== 'delivery' && readings[name].evidence.length > 0)
    .sort((a, b) => readings[b].value - readings[a].value)
    .slice(0, 2)
    .map((name) => lowerFirst(readings[name].sentence));
  const head = `${KIND_LINES[kind]}${wanted ? ', as the brief asks' : ''}${whole === null ? '' : `, ${whole}`}`;
  return strongest.length === 0 ? `${head}.` : `${head}: ${strongest.join('; ')}.`;
}

function lowerFirst(text: string): string {
  return /^(?:I\b|[A-Z]{2})/.test(text) ? text : text.charAt(0).toLowerCase() + text.slice(1);
}
