import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { FrameRate } from '../../cut/frames.js';
import { readEdl, writeEdl } from './edl.js';
import { readOtio, writeOtio } from './otio.js';
import { type EditList, EditListRefusedError } from './types.js';

const PAL: FrameRate = { numerator: 25, denominator: 1 };
const NTSC: FrameRate = { numerator: 30_000, denominator: 1_001 };
const LIST: EditList = {
  title: 'Up the Flue, no. 12',
  source: 'up the flue 12.mp4',
  sourceFrames: 69_250,
  rate: PAL,
  pictured: true,
  passages: [
    { title: 'I hadn’t asked who lived there', spans: [{ startFrame: 28_125, endFrame: 29_425 }] },
    {
      title: 'A stove is not\nan open fire',
      spans: [
        { startFrame: 57_150, endFrame: 57_500 },
        { startFrame: 57_600, endFrame: 57_925 },
      ],
    },
  ],
};

// The layout of CMX 3600 as it is described everywhere; from memory.
describe('an edit decision list', () => {
  test('has an event a span, with source and record timecode', () => {
    expect(writeEdl(LIST).split('\r\n')).toEqual([
      'TITLE: Up the Flue, no. 12',
      'FCM: NON-DROP FRAME',
      '',
      '001  UPTHEFLU AA/V  C        00:18:45:00 00:19:37:00 01:00:00:00 01:00:52:00',
      '* FROM CLIP NAME: up the flue 12.mp4',
      '* COMMENT: I hadn’t asked who lived there',
      '002  UPTHEFLU AA/V  C        00:38:06:00 00:38:20:00 01:00:52:00 01:01:06:00',
      '* FROM CLIP NAME: up the flue 12.mp4',
      '* COMMENT: A stove is not an open fire',
      '003  UPTHEFLU AA/V  C        00:38:24:00 00:38:37:00 01:01:06:00 01:01:19:00',
      '* FROM CLIP NAME: up the flue 12.mp4',
      '* COMMENT: A stove is not an open fire',
      '',
    ]);
  });

  test('drops numbers at 29.97, and says so', () => {
    const edl = writeEdl({ ...LIST, rate: NTSC, pictured: false, source: '', passages: [{ title: 'One', spans: [{ startFrame: 0, endFrame: 1_800 }] }] });
    expect(edl).toContain('FCM: DROP FRAME');
    expect(edl).toContain('001  SOURCE   AA    C        00:00:00;00 00:01:00;02 01:00:00;00 01:01:00;02');
  });

  test('whose picture and sound stand on a line each plays both once', () => {
    const codes = '00:00:01:00 00:00:02:00 01:00:00:00 01:00:01:00';
    expect(readEdl(`TITLE: x\n001  AX  V  C  ${codes}\n001  AX  AA  C  ${codes}\n* COMMENT: One`, PAL).passages).toEqual([
      { title: 'One', spans: [{ startFrame: 25, endFrame: 50 }] },
    ]);
  });

  test('is refused with its line', () => {
    const refused = (text: string): string => {
      try {
        readEdl(text, PAL);
      } catch (error) {
        return (error as EditListRefusedError).message;
      }
      return '';
    };
    const event = (codes: string, transition = 'C'): string => `TITLE: x\n\n001  AX       V     ${transition}        ${codes}`;
    expect(refused(event('00:00:01:00 00:00:02:00 01:00:00:00', 'C'))).toBe('line 3: is no event: number, reel, channels, transition and four timecodes');
    expect(refused(event('00:00:01:25 00:00:02:00 01:00:00:00 01:00:01:00'))).toBe('line 3: “00:00:01:25” is no timecode at this rate');
    expect(refused(event('00:00:02:00 00:00:01:00 01:00:00:00 01:00:01:00'))).toBe('line 3: ends before it starts');
    expect(refused(event('00:00:01:00 00:00:02:00 01:00:00:00 01:00:01:00', 'D    025'))).toBe('line 3: “D” is no cut; only cuts can be taken over');
    expect(refused('hello')).toBe('line 1: is neither an event nor a comment');
    expect(refused('TITLE: x')).toBe('it holds no events');
    const many = { title: 'x', spans: Array.from({ length: 1_000 }, (_, i) => ({ startFrame: i, endFrame: i + 1 })) };
    expect(() => writeEdl({ ...LIST, passages: [many] })).toThrow('numbers 999 events');
  });
});

const passage = fc.record({
  title: fc.stringMatching(/^[A-Z][a-z]{2,12}$/),
  spans: fc
    .array(fc.tuple(fc.integer({ min: 0, max: 2_000_000 }), fc.integer({ min: 1, max: 4_000 })), { minLength: 1, maxLength: 4 })
    .map((list) => list.map(([startFrame, length]) => ({ startFrame, endFrame: startFrame + length }))),
});
const anyList = fc.record({
  rate: fc.constantFrom(PAL, NTSC, { numerator: 60_000, denominator: 1_001 }, { numerator: 24_000, denominator: 1_001 }, { numerator: 24, denominator: 1 }),
  passages: fc.uniqueArray(passage, { minLength: 1, maxLength: 6, selector: (one) => one.title }),
});

describe('an edit list that goes out', () => {
  test('comes back as the same cuts, in either format, at every rate', () => {
    fc.assert(
      fc.property(anyList, ({ rate, passages }) => {
        const list = { ...LIST, rate, passages };
        expect(readEdl(writeEdl(list), rate).passages).toEqual(passages);
        expect(readOtio(writeOtio(list), rate).passages).toEqual(passages);
      }),
    );
  });

  test('as OpenTimelineIO names its schemas, its rate and its source', () => {
    const timeline = JSON.parse(writeOtio(LIST));
    expect(timeline.OTIO_SCHEMA).toBe('Timeline.1');
    const [video, audio] = timeline.tracks.children;
    expect([video.kind, audio.kind, video.children.length]).toEqual(['Video', 'Audio', 3]);
    expect(video.children[0]).toMatchObject({
      OTIO_SCHEMA: 'Clip.1',
      source_range: { OTIO_SCHEMA: 'TimeRange.1', start_time: { rate: 25, value: 28_125 }, duration: { rate: 25, value: 1_300 } },
      media_reference: { OTIO_SCHEMA: 'ExternalReference.1', target_url: 'up%20the%20flue%2012.mp4' },
    });
  });

  test('as what is no timeline of cuts is refused in words', () => {
    const refused = (text: string): string => {
      try {
        readOtio(text, PAL);
      } catch (error) {
        return (error as EditListRefusedError).message;
      }
      return '';
    };
    expect(refused('{')).toBe('it is no JSON');
    expect(refused('{"OTIO_SCHEMA":"Clip.1"}')).toBe('it is no OpenTimelineIO timeline');
    expect(refused('{"OTIO_SCHEMA":"Timeline.1","tracks":{}}')).toBe('it holds no track');
    const track = (clip: object): string =>
      JSON.stringify({ OTIO_SCHEMA: 'Timeline.1', tracks: { children: [{ OTIO_SCHEMA: 'Track.1', kind: 'Video', children: [clip] }] } });
    expect(refused(track({ OTIO_SCHEMA: 'Transition.1' }))).toContain('item 1 of the track is no clip but “Transition”');
    expect(refused(track({ OTIO_SCHEMA: 'Clip.2', source_range: null }))).toContain('clip 1 does not say');
    const beyond = { start_time: { rate: 1e-300, value: 1e10 }, duration: { rate: 25, value: 25 } };
    expect(refused(track({ OTIO_SCHEMA: 'Clip.2', source_range: beyond }))).toContain('clip 1 does not say');
    expect(refused(track({ OTIO_SCHEMA: 'Clip.2', source_range: [] }))).toContain('clip 1 does not say');
    expect(refused('{"OTIO_SCHEMA":"Timeline.1","tracks":[1]}')).toBe('it holds no track');
  });
});
