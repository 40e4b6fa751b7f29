import type { VoiceTrack } from '@sift-reel/core';
import { log } from '../config/logger.js';
import { DeafError, type Heard, listenTo } from '../media/listen.js';
import type { MediaStore } from '../media/media-store.service.js';
import { MissingFileError } from '../media/store-errors.js';
import { FfmpegError } from '../media/run-ffmpeg.js';
import { Recording, VoiceTrackRow } from '../recordings/recordings.models.js';
import { heardOf, levelsOf, type Sounding } from '../recordings/stored-talk.js';

/** What was heard of a recording's present sound, or null when nobody has listened yet. */
export async function knownVoice(recording: Pick<Recording, 'id'> & Sounding): Promise<VoiceTrack | null> {
  if (recording.soundFile === null || recording.soundTrack === null) return null;
  const row = await VoiceTrackRow.findOne({ where: { recordingId: recording.id, soundFile: heardOf(recording) } });
  if (row === null) return null;
  return { levels: levelsOf(row), pitches: Uint8Array.from(row.pitches) };
}

/** What is kept already is left as it is: the same sound is heard the same. */
export async function keepVoice(recordingId: string, clientId: string, of: Sounding, { levels, pitches }: VoiceTrack): Promise<void> {
  if ((await VoiceTrackRow.count({ where: { recordingId, soundFile: heardOf(of) } })) > 0) return;
  await VoiceTrackRow.upsert({ recordingId, clientId, soundFile: heardOf(of), levels: bytesOf(levels), pitches: bytesOf(pitches) });
}

/**
 * Listens where nobody has yet, and keeps what was heard for the next sift. Null where there is no sound, none that can be read, or
 * where the listening was killed: the next sift tries again.
 */
export async function hearRecording(
  recordingId: string,
  media: MediaStore,
  signal: AbortSignal,
  onFraction: (fraction: number) => void,
): Promise<VoiceTrack | null> {
  const recording = await Recording.findByPk(recordingId);
  if (recording === null || recording.soundFile === null || recording.soundTrack === null) return null;
  const { soundFile, soundTrack: track, clientId } = recording;
  const known = await knownVoice(recording);
  if (known !== null) return known;
  const lengthMs = recording.durationMs ?? 0;
  const listening = { signal, track, loudness: false, onHeard: (ms: number) => onFraction(shareOf(ms, lengthMs)) };
  const heard = await media
    .use(soundFile, '.', (path) => hear(recordingId, path, listening), signal)
    .catch((error: unknown) => {
      if (!(error instanceof FfmpegError) && !(error instanceof MissingFileError)) throw error;
      log.warn({ recordingId, error: error.message }, 'the sound was not listened to');
      return null;
    });
  if (heard === null) return null;
  await keepVoice(recordingId, clientId, recording, heard.voice);
  return heard.voice;
}

/** Null where it cannot be listened to: the words can still be sifted, and the ranking says that nobody listened. */
export async function hear(recordingId: string, path: string, listening: Parameters<typeof listenTo>[1]): Promise<Heard | null> {
  try {
    return await listenTo(path, listening);
  } catch (error) {
    if (!(error instanceof DeafError)) throw error;
    log.warn({ recordingId, error: error.message }, 'the sound could not be listened to');
    return null;
  }
}

export const shareOf = (ms: number, lengthMs: number): number => (lengthMs === 0 ? 0 : Math.min(1, ms / lengthMs));

const bytesOf = (values: Int8Array | Uint8Array): Buffer => Buffer.from(values.buffer, values.byteOffset, values.byteLength);
