import { UnprocessableEntityException } from '@nestjs/common';
import type { FrameRate } from '@sift-reel/core';
import { SOUND_INPUT } from './ffmpeg.js';
import { ffprobe } from './limited.js';

/** What is seen of a file, as it is shown: turned as its maker meant it. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly rate: FrameRate;
  readonly codec: string;
}

/** One of the sound tracks of a file, in its order. */
export interface SoundTrack {
  readonly codec: string;
  readonly channels: number;
  /** As the file has it: mostly three letters (ISO 639-2); empty where it says nothing. */
  readonly language: string;
  readonly title: string;
}

/** What ffprobe says of a file. At least one of picture and sound is there. */
export interface Probed {
  readonly durationMs: number;
  /** Names of the demuxer, as ffprobe has them. */
  readonly format: string;
  readonly picture: Picture | null;
  readonly soundTracks: readonly SoundTrack[];
}

interface ProbedStream {
  readonly codec_type: string;
  readonly codec_name?: string;
  readonly width?: number;
  readonly height?: number;
  readonly avg_frame_rate?: string;
  readonly sample_aspect_ratio?: string;
  readonly channels?: number;
  readonly tags?: { readonly language?: string; readonly title?: string };
  readonly disposition?: { readonly attached_pic?: number };
  readonly side_data_list?: readonly { readonly rotation?: number }[];
}

const ENTRIES =
  'format=duration,format_name:stream=codec_type,codec_name,width,height,avg_frame_rate,sample_aspect_ratio,channels' +
  ':stream_disposition=attached_pic:stream_tags=language,title:stream_side_data=rotation';
const TAG_CHARACTERS = 60;

/**
 * Looks what a file is.
 * @param name as people call it, for the refusal
 * @throws UnprocessableEntityException when it cannot be read, or holds neither sound nor picture
 */
export async function probe(path: string, name: string): Promise<Probed> {
  let output: string;
  try {
    output = await ffprobe(['-v', 'error', ...SOUND_INPUT, '-show_entries', ENTRIES, '-of', 'json', path]);
  } catch {
    throw new UnprocessableEntityException(`“${name}” is neither sound nor video that can be read.`);
  }
  const found = JSON.parse(output) as { format?: { duration?: string; format_name?: string }; streams?: ProbedStream[] };
  const streams = found.streams ?? [];
  // The cover of a sound file is a stream of its own, too.
  const seen = streams.find((one) => one.codec_type === 'video' && one.disposition?.attached_pic !== 1);
  const soundTracks = streams.filter((one) => one.codec_type === 'audio').map(trackOf);
  const seconds = Number(found.format?.duration);
  if ((soundTracks.length === 0 && seen === undefined) || !Number.isFinite(seconds) || seconds <= 0)
    throw new UnprocessableEntityException(`“${name}” holds neither sound nor a moving picture.`);
  return {
    durationMs: Math.round(seconds * 1_000),
    format: found.format?.format_name ?? '',
    picture: seen === undefined ? null : pictureOf(seen),
    soundTracks,
  };
}

const trackOf = ({ codec_name, channels = 0, tags = {} }: ProbedStream): SoundTrack => ({
  codec: codec_name ?? '',
  channels,
  language: tags.language === 'und' ? '' : (tags.language ?? '').slice(0, 8),
  title: (tags.title ?? '').replace(/[\0\p{Surrogate}]/gu, '').slice(0, TAG_CHARACTERS),
});

/** Frames in a second of what tells none, or of a rate that no screen shows. */
const PLAIN_RATE: FrameRate = { numerator: 30, denominator: 1 };
const FASTEST = 60.5;

function pictureOf({ codec_name, width = 0, height = 0, avg_frame_rate = '', sample_aspect_ratio = '', side_data_list = [] }: ProbedStream): Picture {
  const [numerator = 0, denominator = 0] = avg_frame_rate.split('/').map(Number);
  const known = numerator > 0 && denominator > 0 && numerator / denominator <= FASTEST && numerator / denominator >= 5;
  const [across = 0, down = 0] = sample_aspect_ratio.split(':').map(Number);
  const shown = across > 0 && down > 0 ? Math.round((width * across) / down) : width;
  const turned = Math.abs(side_data_list.find((one) => one.rotation !== undefined)?.rotation ?? 0) % 180 === 90;
  return { width: turned ? height : shown, height: turned ? shown : height, rate: known ? { numerator, denominator } : PLAIN_RATE, codec: codec_name ?? '' };
}

/** So much of the beginning is looked at, in seconds. */
const LOOKED_AT = 60;

/**
 * Longest time between two pictures that can be decoded by themselves, over the first minute, in ms. To find a place, a player
 * decodes from the last one before it.
 */
export async function wholePictureGapMs(path: string): Promise<number> {
  const args = ['-v', 'error', ...SOUND_INPUT, '-select_streams', 'v:0', '-read_intervals', `%+${LOOKED_AT}`];
  const said = await ffprobe([...args, '-show_entries', 'packet=pts_time,flags', '-of', 'csv=p=0', path]);
  const packets = said
    .split('\n')
    .map((line) => line.split(','))
    .map(([time = '', flags = '']) => ({ ms: Number(time) * 1_000, whole: flags.startsWith('K') }))
    .filter(({ ms }) => Number.isFinite(ms));
  const lastMs = Math.max(...packets.map(({ ms }) => ms), 0);
  const whole = [...packets.filter((one) => one.whole).map(({ ms }) => ms), lastMs].sort((a, b) => a - b);
  return Math.max(...whole.slice(1).map((ms, i) => ms - whole[i]!), 0);
}
