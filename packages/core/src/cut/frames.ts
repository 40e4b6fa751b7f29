import type { Span } from '../time/span.js';

/** Frames in a second, as a fraction: 25/1, 30000/1001. Both whole and positive. */
export interface FrameRate {
  readonly numerator: number;
  readonly denominator: number;
}

/** A run of frames: half-open, from the start of the source. */
export interface FrameSpan {
  readonly startFrame: number;
  readonly endFrame: number;
}

/** The frame boundary nearest to a time; a time half-way between two goes to the later. Exact for any length. */
export function frameAt(ms: number, { numerator, denominator }: FrameRate): number {
  const scale = 1_000n * BigInt(denominator);
  return Number((2n * BigInt(ms) * BigInt(numerator) + scale) / (2n * scale));
}

/** When a frame begins, in ms, to the nearest. */
export function frameStartMs(frame: number, { numerator, denominator }: FrameRate): number {
  const rate = BigInt(numerator);
  return Number((2n * BigInt(frame) * 1_000n * BigInt(denominator) + rate) / (2n * rate));
}

/**
 * A cut list in frames of the source. Each span begins at its nearest frame, and is as long as keeps the sum of all spans so far
 * at its nearest frame: so what is played never drifts from the cut list by a frame, however many cuts there are.
 */
export function cutFrames(spans: readonly Span[], rate: FrameRate): FrameSpan[] {
  let playedMs = 0;
  let played = 0;
  return spans.flatMap(({ startMs, endMs }) => {
    playedMs += endMs - startMs;
    const length = frameAt(playedMs, rate) - played;
    played += length;
    const startFrame = frameAt(startMs, rate);
    return length > 0 ? [{ startFrame, endFrame: startFrame + length }] : [];
  });
}

/** Frames of all spans together. */
export const framesOf = (spans: readonly FrameSpan[]): number => spans.reduce((sum, { startFrame, endFrame }) => sum + endFrame - startFrame, 0);
