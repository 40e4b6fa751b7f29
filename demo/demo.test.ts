import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { validateSync } from 'class-validator';
import { plainToInstance } from 'class-transformer';
import { OPEN_VOICE, readInterestCsv } from '@sift-reel/core';
import { ChannelForm, ClientForm, ComeAgainForm, PlatformProfileForm, VoiceForm } from '@sift-reel/forms';
import { describe, expect, it } from 'vitest';
import { CLIENTS, PLATFORMS, RECORDINGS } from './scenario.mjs';
import { SHOW } from './shows.mjs';
import { parseRecording } from './speak.mjs';

const text = (file: string): string => readFileSync(fileURLToPath(new URL(`${file}.txt`, import.meta.url)), 'utf8');
const TEXTS = [...RECORDINGS.map(({ file }) => `recordings/${file}`), ...SHOW.episodes.map(({ number }) => `shows/${SHOW.slug}/${SHOW.slug}-${number}`)];

describe('the demo’s texts', () => {
  it.each(TEXTS)('%s can be spoken: every line has a speaker with a voice', (file) => {
    const { title, client, voices, lines } = parseRecording(text(file), file);
    expect(CLIENTS.map((one) => one.name)).toContain(client);
    expect(title.length).toBeGreaterThan(5);
    for (const line of lines) if ('speaker' in line && typeof line.speaker === 'string') expect(voices.has(line.speaker)).toBe(true);
  });
  it('repeat no long line', () => {
    const lines = TEXTS.flatMap((file) =>
      text(file)
        .split('\n')
        .filter((line) => line.split(' ').length > 14),
    );
    expect(new Set(lines).size).toBe(lines.length);
  });
  it('say where a line is wrong', () => {
    expect(() => parseRecording('title: T\nclient: C\nvoices: Ann=slt*1.2\n\nAnn: fine\nNobody: no\n', 'x.txt')).toThrow(/x\.txt: line 7/);
  });
});

describe('the demo’s scenario', () => {
  const problems = (form: new () => object, value: object): unknown[] =>
    validateSync(plainToInstance(form, value), { whitelist: true, forbidNonWhitelisted: true });
  it('is made of valid forms', () => {
    for (const platform of PLATFORMS) expect(problems(PlatformProfileForm, platform)).toEqual([]);
    for (const { channels, interest, voice, comeAgainDays, ...client } of CLIENTS) {
      expect(problems(ClientForm, client)).toEqual([]);
      if (comeAgainDays !== undefined) expect(problems(ComeAgainForm, { days: comeAgainDays, version: 1 })).toEqual([]);
      if (voice !== undefined) expect(problems(VoiceForm, { voice: { ...OPEN_VOICE, ...voice }, version: 1 })).toEqual([]);
      if (interest !== undefined) expect(readInterestCsv(readFileSync(new URL(`interest/${interest}`, import.meta.url), 'utf8')).length).toBeGreaterThan(5);
      for (const { platform, ...channel } of channels) {
        expect(PLATFORMS.map((one) => one.name)).toContain(platform);
        expect(problems(ChannelForm, { ...channel, platformProfileId: '00000000-0000-4000-8000-000000000000' })).toEqual([]);
      }
    }
  });
  it('has five platforms that differ, and channels in zones that differ', () => {
    expect(new Set(PLATFORMS.map(({ name: _, ...rules }) => JSON.stringify(rules))).size).toBe(5);
    expect(new Set(CLIENTS.flatMap((client) => client.channels.map((channel) => channel.zone))).size).toBeGreaterThanOrEqual(5);
  });
});
