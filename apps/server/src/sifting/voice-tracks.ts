import { join } from 'node:path';
import type { VoiceTrack } from '@sift-reel/core';
import { log } from '../config/logger.js';
import { Recording } from '../recordings/recordings.models.js';
import { DeafError, listenTo } from '../media/listen.js';
import { VoiceTrackRow } from './sifting.models.js';

/** What was heard of a recording's present sound, or null when nobody has listened yet. */
export async function knownVoice(recordingId: string, soundFile: string | null): Promise<VoiceTrack | null> {
  const row = soundFile === null ? null : await VoiceTrackRow.findOne({ where: { recordingId, soundFile } });
  if (row === null) return null;
  const { levels, pitches } = row;
  return { levels: new Int8Array(levels.buffer.slice(levels.byteOffset, levels.byteOffset + levels.length) as ArrayBuffer), pitches: Uint8Array.from(pitches) };
}

/** Listens where nobody has yet, and keeps what was heard for the next sift. Null where there is no sound or none that can be read. */
export async function hearRecording(
  recordingId: string,
  mediaDir: string,
  signal: AbortSignal,
  onFraction: (fraction: number) => void,
): Promise<VoiceTrack | null> {
  const recording = await Recording.findByPk(recordingId);
  if (recording === null || recording.soundFile === null) return null;
  const { soundFile, clientId } = recording;
  const known = await knownVoice(recordingId, soundFile);
  if (known !== null) return known;
  const lengthMs = recording.durationMs ?? 0;
  try {
    const track = await listenTo(join(mediaDir, soundFile), signal, (ms) => onFraction(lengthMs === 0 ? 0 : Math.min(1, ms / lengthMs)));
    await VoiceTrackRow.upsert({ recordingId, clientId, soundFile, levels: bytesOf(track.levels), pitches: bytesOf(track.pitches) });
    return track;
  } catch (error) {
    // The words can still be sifted; the ranking says that nobody listened.
    if (!(error instanceof DeafError)) throw error;
    log.warn({ recordingId, error: error.message }, 'the sound could not be listened to');
    return null;
  }
}

const bytesOf = (values: Int8Array | Uint8Array): Buffer => Buffer.from(values.buffer, values.byteOffset, values.byteLength);
