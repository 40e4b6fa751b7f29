import { Controller, Get, Inject, Param, ParseUUIDPipe, Res } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { captionCues, cutSheetCsv, type CutSheetRow, edgeWords, fileName, writeSubRip, writeWebVtt } from '@sift-reel/core';
import type { Response } from 'express';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { unpackRow } from '../jobs/text-tasks.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import { cutSheetPage } from './cut-sheet.page.js';
import { sendFile } from './send-file.js';
import { baseCopy, ShortsService } from './shorts.service.js';

const SHORT = 'shorts/:shortId';

/** Files to take away: captions of a short, cut sheet of a recording. */
@ApiTags('exports')
@Controller()
export class ExportsController {
  constructor(
    @Inject(ShortsService) private readonly shorts: ShortsService,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
  ) {}

  @Get(`${SHORT}/captions.srt`)
  @ApiOkResponse({ description: 'SubRip, times from the start of the short' })
  async exportSubRip(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string, @Res() response: Response): Promise<void> {
    const { cues, name } = await this.captions(actor, shortId);
    sendFile(response, fileName([...name, 'captions'], 'srt'), 'application/x-subrip; charset=utf-8', writeSubRip(cues));
  }

  @Get(`${SHORT}/captions.vtt`)
  @ApiOkResponse({ description: 'WebVTT, times from the start of the short' })
  async exportWebVtt(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string, @Res() response: Response): Promise<void> {
    const { cues, name } = await this.captions(actor, shortId);
    sendFile(response, fileName([...name, 'captions'], 'vtt'), 'text/vtt; charset=utf-8', writeWebVtt(cues));
  }

  @Get('recordings/:recordingId/cut-sheet.csv')
  @ApiOkResponse({ description: 'CSV (RFC 4180)' })
  async exportCutSheet(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string, @Res() response: Response): Promise<void> {
    const { title, rows } = await this.cutSheet(actor, recordingId);
    sendFile(response, fileName([title, 'cut sheet'], 'csv'), 'text/csv; charset=utf-8', cutSheetCsv(rows));
  }

  @Get('recordings/:recordingId/cut-sheet')
  @ApiOkResponse({ description: 'A page to print' })
  async printCutSheet(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string, @Res() response: Response): Promise<void> {
    const { title, rows, durationMs } = await this.cutSheet(actor, recordingId);
    response.type('text/html; charset=utf-8').send(cutSheetPage(title, durationMs, rows));
  }

  private async captions(actor: Actor, shortId: string): Promise<{ cues: ReturnType<typeof captionCues>; name: string[] }> {
    const short = await this.shorts.find(actor, shortId);
    const transcript = unpackRow(await this.recordings.readPacked(actor, short.recordingId));
    return { cues: captionCues(transcript, short.firstWord, short.endWord, short.startMs), name: [short.recording.title, baseCopy(short).title] };
  }

  private async cutSheet(actor: Actor, recordingId: string): Promise<{ title: string; durationMs: number; rows: CutSheetRow[] }> {
    const recording = await this.recordings.find(actor, recordingId);
    const shorts = await this.shorts.list(actor, { recordingId });
    const words = recording.transcript === null ? [] : unpackRow(await this.recordings.readPacked(actor, recordingId)).words;
    const rows = shorts.map((short) => {
      const said = words.slice(short.firstWord, short.endWord).map((word) => word.text);
      const { title, description, keywords, coverLine } = short.copy;
      return {
        kind: short.kind,
        startMs: short.startMs,
        endMs: short.endMs,
        firstWords: edgeWords(said, 'first'),
        lastWords: edgeWords(said, 'last'),
        title,
        description,
        keywords,
        coverLine,
        reason: short.reason,
      };
    });
    return { title: recording.title, durationMs: recording.durationMs ?? 0, rows };
  }
}
