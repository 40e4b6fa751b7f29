/** Demuxers of sound files. A playlist or a list of other files is none of them, so no file can name another. */
const SOUND_DEMUXERS = ['mp3', 'wav', 'flac', 'ogg', 'mov', 'matroska', 'aac'];

/** How ffprobe and ffmpeg may read what somebody brought in; stands before the input. */
export const SOUND_INPUT: readonly string[] = ['-protocol_whitelist', 'file', '-format_whitelist', SOUND_DEMUXERS.join(',')];
