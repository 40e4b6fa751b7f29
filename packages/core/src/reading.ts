// Apart from the rest: a thread that only reads transcripts need not hold what judges them.
export { packTranscript } from './transcript/pack.js';
export { readTranscript } from './transcript/read-transcript.js';
export { type Repair, type Transcript, type TranscriptFormat, TranscriptRefusedError } from './transcript/types.js';
