// Apart from the rest: a thread that only reads transcripts need not hold what judges them.
export { packTranscript } from './transcript/pack.js';
export type { SaidLine } from './transcript/read/plain-text.js';
export { readTalk, type UntimedText } from './transcript/read-transcript.js';
export { type Repair, type Transcript, type TranscriptFormat, TranscriptRefusedError } from './transcript/types.js';
