import { readTranscript, sift } from '@sift-reel/core';
import { talkOf } from './talk.mjs';
const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 30_000, maxMs: 60_000, roughCount: 12, topics: ['wood'], kinds: [], avoid: [] };
const { transcript } = readTranscript(new TextEncoder().encode(talkOf(1)));
const input = { transcript, brief: BRIEF, clientTags: [], sentenceVectors: null, topicVectors: null };
for (let i = 0; i < 60; i++) sift(input);
