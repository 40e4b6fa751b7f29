import { found } from '../identity/actor.js';
import type { StoredTalk } from '../text/unpack.js';
import { Recording, TranscriptRow, VoiceTrackRow } from './recordings.models.js';

export type Sounding = Pick<Recording, 'soundFile' | 'soundTrack'>;

/** What the voices are kept under: the file, and which of its sound tracks where it is not the first. */
export const heardOf = ({ soundFile, soundTrack }: Sounding): string => `${soundFile ?? ''}${soundTrack === 0 ? '' : `#${soundTrack}`}`;

/** Where the times of a transcript's words come from: what cuts rest on. */
export type TimesOfWords = Pick<TranscriptRow, 'wordTimes' | 'endsHeardIn'>;

/** The transcript of a recording as it is cut. Who may see it is asked before. */
export async function storedTalk(recordingId: string): Promise<StoredTalk> {
  return withLevels(recordingId, found(await TranscriptRow.findByPk(recordingId, { attributes: ['packed', 'endsHeardIn'] }), 'transcript'));
}

export async function withLevels(recordingId: string, { packed, endsHeardIn }: Pick<TranscriptRow, 'packed' | 'endsHeardIn'>): Promise<StoredTalk> {
  return { packed, levels: await levelsOfEnds(recordingId, endsHeardIn) };
}

/** How loud the sound is in which it was heard where words end; null where there is none, and where the recording has another now. */
export async function levelsOfEnds(recordingId: string, endsHeardIn: string | null): Promise<Int8Array | null> {
  if (endsHeardIn === null) return null;
  const recording = await Recording.findByPk(recordingId, { attributes: ['soundFile', 'soundTrack'] });
  if (recording === null || heardOf(recording) !== endsHeardIn) return null;
  const row = await VoiceTrackRow.findOne({ where: { recordingId, soundFile: endsHeardIn }, attributes: ['levels'] });
  return row === null ? null : levelsOf(row);
}

export const levelsOf = ({ levels }: Pick<VoiceTrackRow, 'levels'>): Int8Array =>
  new Int8Array(levels.buffer.slice(levels.byteOffset, levels.byteOffset + levels.length) as ArrayBuffer);
