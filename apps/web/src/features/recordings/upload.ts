import { csrfHeader } from '../../app/base-api.js';
import { sessionEnded, untilSignedIn } from '../../app/session.js';
import { store } from '../../app/store.js';
import type { RecordingView, TranscriptReadingView } from '../../app/api.js';
import { problemOf, type Problem } from '../../app/problems.js';
import { t } from '../../texts/texts.js';
import { bodyOf, type SentFile, sendInPieces } from './resumable.js';

export interface FilePair {
  /** Base name both files share; the recording's first title. */
  readonly base: string;
  readonly transcript: File | null;
  readonly sound: File | null;
}

const TRANSCRIPT = /\.(?:vtt|srt|json|ttml|dfxp|xml|lrc|txt|docx|odt|html?)$/i;
/** Written by people, in shapes of their own: how one is understood is shown before it is taken. */
const LOOSE = /\.(?:txt|docx|odt|html?)$/i;
const VIDEO = /\.(?:mp4|m4v|mov|mkv|webm)$/i;
const SOUND = /\.(?:mp3|m4a|aac|wav|flac|ogg|oga|opus|webm|mp4|m4v|mov|mkv)$/i;

export const isLoose = (name: string): boolean => LOOSE.test(name);
export const isVideo = (name: string): boolean => VIDEO.test(name);

/** Puts transcripts and sounds of the same base name together; what is neither is named. */
export function pairFiles(files: readonly File[]): { pairs: FilePair[]; strangers: string[] } {
  const pairs = new Map<string, { base: string; transcript: File | null; sound: File | null }>();
  const strangers: string[] = [];
  for (const file of files) {
    const isTranscript = TRANSCRIPT.test(file.name);
    if (!isTranscript && !SOUND.test(file.name)) {
      strangers.push(file.name);
      continue;
    }
    const base = file.name.replace(/\.[^.]+$/, '');
    const key = base.toLowerCase();
    const pair = pairs.get(key) ?? { base, transcript: null, sound: null };
    if (isTranscript) {
      if (pair.transcript === null) pair.transcript = file;
      else strangers.push(file.name);
    } else if (pair.sound === null) pair.sound = file;
    else strangers.push(file.name);
    pairs.set(key, pair);
  }
  return { pairs: [...pairs.values()], strangers };
}

type Outcome<T> = { readonly kind: 'done'; readonly answer: T } | { readonly kind: 'refused'; readonly problem: Problem };

/**
 * Brings files in: the sound or video in pieces, which go on where the line breaks; then transcript and title as a form.
 * @param onProgress told the share that is sent; 1 while the server reads
 */
export async function upload(
  path: string,
  pair: Pick<FilePair, 'transcript' | 'sound'> & { title?: string },
  onProgress: (fraction: number) => void,
  signal?: AbortSignal,
): Promise<Outcome<RecordingView>> {
  const form = new FormData();
  if (pair.title !== undefined) form.set('title', pair.title);
  if (pair.transcript !== null) form.set('transcript', pair.transcript);
  let sent: SentFile | null = null;
  if (pair.sound !== null) {
    try {
      sent = await sendInPieces(pair.sound, (bytes, all) => onProgress(Math.min(0.999, bytes / all)), signal);
    } catch (error) {
      return { kind: 'refused', problem: refusalOf(error) };
    }
    form.set('uploaded', sent.id);
  }
  const outcome = await sendForm<RecordingView>(path, form, sent === null ? onProgress : () => onProgress(1), signal);
  if (outcome.kind === 'done') sent?.forget();
  return outcome;
}

/** How a transcript would be understood; nothing is kept of it. */
export function understand(transcript: File): Promise<Outcome<TranscriptReadingView>> {
  const form = new FormData();
  form.set('transcript', transcript);
  return sendForm('/api/transcripts/reading', form, () => undefined);
}

/** Why a file could not be sent, in words. */
function refusalOf(error: unknown): Problem {
  if (error instanceof DOMException) return { status: 0, detail: t('recordings.stopped-nothing-of-these-files-was') };
  const said = problemOf(bodyOf(error));
  return said ?? { status: 0, detail: t('recordings.the-line-dropped-it-goes-on') };
}

/**
 * Sends a form, with progress. XMLHttpRequest, not the generated client: fetch does not tell how much of a body has been sent.
 */
function sendForm<T>(path: string, form: FormData, onProgress: (fraction: number) => void, signal?: AbortSignal): Promise<Outcome<T>> {
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    request.open('POST', path);
    request.setRequestHeader('x-csrf-token', csrfHeader());
    request.responseType = 'json';
    request.upload.onprogress = (event) => {
      if (event.lengthComputable) onProgress(event.loaded / event.total);
    };
    const refuse = (detail: string): void => resolve({ kind: 'refused', problem: { status: request.status, detail } });
    request.onload = () => {
      if (request.status === 401) {
        // The session ended: the files wait for somebody to sign in over the screen, and are sent again.
        store.dispatch(sessionEnded());
        void untilSignedIn().then(() => sendForm<T>(path, form, onProgress, signal).then(resolve));
      } else if (request.status < 300) resolve({ kind: 'done', answer: request.response as T });
      else {
        const problem = problemOf(request.response);
        if (problem !== null) resolve({ kind: 'refused', problem });
        else refuse(t('recordings.the-server-did-not-take-the'));
      }
    };
    request.onerror = () => refuse(t('recordings.the-line-dropped-it-goes-on'));
    request.onabort = () => refuse(t('recordings.stopped-nothing-of-these-files-was'));
    signal?.addEventListener('abort', () => request.abort());
    request.send(form);
  });
}
