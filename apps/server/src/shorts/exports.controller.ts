import { Controller, Get, Inject, Param, ParseUUIDPipe, Res, UnprocessableEntityException } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import {
  cutFrames,
  type CutList,
  cutSheetCsv,
  type CutSheetRow,
  edgeWords,
  type EditList,
  EditListRefusedError,
  fileName,
  frameAt,
  writeEdl,
  writeOtio,
} from '@sift-reel/core';
import type { Response } from 'express';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import { TextPool } from '../text/text-pool.service.js';
import { cutSheetPage } from './cut-sheet.page.js';
import { editRateOf } from './edit-rate.js';
import { sendFile } from './send-file.js';
import { baseCopy } from './short-views.js';
import { passageOf } from './shorts.models.js';
import { ShortsService } from './shorts.service.js';
import type { ShortView } from './shorts.views.js';

const SHORT = 'shorts/:shortId';

/** Files to take away: captions of a short, cut sheet and edit lists of a recording. */
@ApiTags('exports')
@Controller()
export class ExportsController {
  constructor(
    @Inject(ShortsService) private readonly shorts: ShortsService,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(TextPool) private readonly text: TextPool,
  ) {}

  @Get(`${SHORT}/captions.srt`)
  @ApiOkResponse({ description: 'SubRip, times from the start of the short' })
  async exportSubRip(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string, @Res() response: Response): Promise<void> {
    const { body, name } = await this.captions(actor, shortId, 'subrip');
    sendFile(response, fileName([...name, 'captions'], 'srt'), 'application/x-subrip; charset=utf-8', body);
  }

  @Get(`${SHORT}/captions.vtt`)
  @ApiOkResponse({ description: 'WebVTT, times from the start of the short' })
  async exportWebVtt(@CurrentActor() actor: Actor, @Param('shortId', ParseUUIDPipe) shortId: string, @Res() response: Response): Promise<void> {
    const { body, name } = await this.captions(actor, shortId, 'webvtt');
    sendFile(response, fileName([...name, 'captions'], 'vtt'), 'text/vtt; charset=utf-8', body);
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

  @Get('recordings/:recordingId/kept.edl')
  @ApiOkResponse({ description: 'Edit decision list (CMX 3600) of what is kept' })
  async exportEdl(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string, @Res() response: Response): Promise<void> {
    const list = await this.editList(actor, recordingId);
    try {
      sendFile(response, fileName([list.title, 'kept passages'], 'edl'), 'text/plain; charset=utf-8', writeEdl(list));
    } catch (error) {
      if (error instanceof EditListRefusedError) throw new UnprocessableEntityException(`An edit decision list cannot be written: ${error.detail}.`);
      throw error;
    }
  }

  @Get('recordings/:recordingId/kept.otio')
  @ApiOkResponse({ description: 'OpenTimelineIO JSON of what is kept' })
  async exportOtio(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string, @Res() response: Response): Promise<void> {
    const list = await this.editList(actor, recordingId);
    sendFile(response, fileName([list.title, 'kept passages'], 'otio'), 'application/json; charset=utf-8', writeOtio(list));
  }

  /** What is kept, in the order it was said, in frames of the recording's own rate. */
  private async editList(actor: Actor, recordingId: string): Promise<EditList> {
    const recording = await this.recordings.find(actor, recordingId);
    const shorts = await this.shorts.list(actor, { recordingId });
    const rate = editRateOf(recording);
    const inOrder = [...shorts].sort((a, b) => a.startMs - b.startMs);
    const cuts = await this.cutLists(actor, recordingId, recording.clientId, inOrder);
    const passages = inOrder.map(({ copy, firstLine }, i) => ({ title: copy.title || firstLine, spans: cutFrames(cuts[i]!, rate) }));
    return {
      title: recording.title,
      source: recording.soundName ?? recording.title,
      sourceFrames: frameAt(recording.durationMs ?? 0, rate),
      rate,
      pictured: recording.picture !== null,
      passages,
    };
  }

  private async cutLists(actor: Actor, recordingId: string, clientId: string, shorts: readonly ShortView[]): Promise<readonly CutList[]> {
    if (shorts.length === 0) return [];
    const { talk } = await this.recordings.readTalk(actor, recordingId);
    return this.text.cutLists(clientId, { talk, passages: shorts.map(({ firstWord, endWord, edit }) => ({ firstWord, endWord, edit })) });
  }

  private async captions(actor: Actor, shortId: string, format: 'subrip' | 'webvtt'): Promise<{ body: string; name: string[] }> {
    const short = await this.shorts.find(actor, shortId);
    const { talk, clientId } = await this.recordings.readTalk(actor, short.recordingId);
    const body = await this.text.captions(clientId, { talk, ...passageOf(short), format });
    return { body, name: [short.recording.title, baseCopy(short).title] };
  }

  private async cutSheet(actor: Actor, recordingId: string): Promise<{ title: string; durationMs: number; rows: CutSheetRow[] }> {
    const recording = await this.recordings.find(actor, recordingId);
    const shorts = await this.shorts.list(actor, { recordingId });
    const passages = shorts.map(({ firstWord, endWord, edit }) => ({ firstWord, endWord, edit }));
    const words =
      recording.transcript === null ? [] : await this.text.words(recording.clientId, { ...(await this.recordings.readTalk(actor, recordingId)), passages });
    const rows = shorts.map((short, i) => {
      const said = words[i] ?? [];
      const { title, description, keywords, coverLine } = short.copy;
      return {
        kind: short.kind,
        startMs: short.startMs,
        endMs: short.endMs,
        playedMs: short.playedMs,
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
