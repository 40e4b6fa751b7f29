import { BadRequestException, Body, Controller, Delete, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Put, Query, Req, Res } from '@nestjs/common';
import { ApiBody, ApiConsumes, ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiQuery, ApiTags } from '@nestjs/swagger';
import { RecordingForm, SoundTrackForm, VoiceNamesForm } from '@sift-reel/forms';
import type { Request, Response } from 'express';
import { type Actor, CurrentActor, found } from '../identity/actor.js';
import { MediaStore } from '../media/media-store.service.js';
import { ResumableUploads } from './resumable-uploads.service.js';
import { type BroughtIn, readBroughtIn, type Staging } from './bring-in.js';
import { keptAwake } from './kept-awake.js';
import { RecordingsService } from './recordings.service.js';
import { PackedTranscriptView, RecordingView, RepairsView, TranscriptReadingView } from './recordings.views.js';

const FILES = {
  schema: {
    type: 'object',
    properties: { title: { type: 'string' }, transcript: { type: 'string', format: 'binary' }, sound: { type: 'string', format: 'binary' } },
  },
};

const transcriptAlone = (): BadRequestException => new BadRequestException('Send one transcript, and nothing else.');
/** Where sound has no business: refused as it begins, before it takes any room. */
const TRANSCRIPT_ALONE: Staging = {
  stage: () => Promise.reject(transcriptAlone()),
  take: () => Promise.reject(transcriptAlone()),
  discard: () => Promise.resolve(),
};

@ApiTags('recordings')
@Controller()
export class RecordingsController {
  constructor(
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(MediaStore) private readonly media: MediaStore,
    @Inject(ResumableUploads) private readonly uploads: ResumableUploads,
  ) {}

  @Get('recordings')
  @ApiOkResponse({ type: [RecordingView] })
  @ApiQuery({ name: 'clientId', required: false, type: String })
  listRecordings(@CurrentActor() actor: Actor, @Query('clientId', new ParseUUIDPipe({ optional: true })) clientId?: string): Promise<RecordingView[]> {
    return this.recordings.list(actor, clientId);
  }

  @Post('clients/:clientId/recordings')
  @ApiConsumes('multipart/form-data')
  @ApiBody(FILES)
  @ApiCreatedResponse({ type: RecordingView })
  async bringIn(
    @CurrentActor() actor: Actor,
    @Param('clientId', ParseUUIDPipe) clientId: string,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<RecordingView> {
    await this.recordings.requireOpenClient(actor, clientId);
    return this.broughtIn(response, await this.readFiles(actor, request), (files) => this.recordings.create(actor, clientId, files));
  }

  @Post('recordings/:recordingId/files')
  @ApiConsumes('multipart/form-data')
  @ApiBody(FILES)
  @ApiCreatedResponse({ type: RecordingView })
  async addFiles(
    @CurrentActor() actor: Actor,
    @Param('recordingId', ParseUUIDPipe) recordingId: string,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<RecordingView> {
    await this.recordings.find(actor, recordingId);
    return this.broughtIn(response, await this.readFiles(actor, request), (files) => this.recordings.add(actor, recordingId, files));
  }

  @Get('recordings/:recordingId')
  @ApiOkResponse({ type: RecordingView })
  readRecording(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string): Promise<RecordingView> {
    return this.recordings.read(actor, recordingId);
  }

  @Put('recordings/:recordingId')
  @ApiOkResponse({ type: RecordingView })
  renameRecording(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string, @Body() form: RecordingForm): Promise<RecordingView> {
    return this.recordings.rename(actor, recordingId, form);
  }

  @Post('transcripts/reading')
  @HttpCode(200)
  @ApiConsumes('multipart/form-data')
  @ApiBody({ schema: { type: 'object', properties: { transcript: { type: 'string', format: 'binary' } } } })
  @ApiOkResponse({ type: TranscriptReadingView })
  async readTranscriptFile(@CurrentActor() actor: Actor, @Req() request: Request): Promise<TranscriptReadingView> {
    const { transcript } = await readBroughtIn(request, TRANSCRIPT_ALONE);
    if (transcript === null) throw transcriptAlone();
    return this.recordings.readTranscriptFile(actor, transcript);
  }

  @Put('recordings/:recordingId/voices')
  @ApiOkResponse({ type: RecordingView })
  nameVoices(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string, @Body() form: VoiceNamesForm): Promise<RecordingView> {
    return this.recordings.nameVoices(actor, recordingId, form);
  }

  @Put('recordings/:recordingId/sound-track')
  @ApiOkResponse({ type: RecordingView })
  chooseSoundTrack(
    @CurrentActor() actor: Actor,
    @Param('recordingId', ParseUUIDPipe) recordingId: string,
    @Body() form: SoundTrackForm,
  ): Promise<RecordingView> {
    return this.recordings.chooseTrack(actor, recordingId, form);
  }

  @Delete('recordings/:recordingId')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeRecording(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string): Promise<void> {
    return this.recordings.remove(actor, recordingId);
  }

  @Get('recordings/:recordingId/transcript')
  @ApiOkResponse({ type: PackedTranscriptView })
  async readTranscript(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string, @Res() response: Response): Promise<void> {
    const packed = await this.recordings.readPacked(actor, recordingId);
    // Stored gzipped: sent as it is, since unpacking 100,000 words to pack them again is what makes a bench slow to open.
    response
      .setHeader('Content-Type', 'application/json; charset=utf-8')
      .setHeader('Content-Encoding', 'gzip')
      .setHeader('Cache-Control', 'private, no-transform, max-age=0')
      .send(packed);
  }

  @Get('recordings/:recordingId/repairs')
  @ApiOkResponse({ type: RepairsView })
  readRepairs(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string): Promise<RepairsView> {
    return this.recordings.readRepairs(actor, recordingId);
  }

  @Get('recordings/:recordingId/sound')
  @ApiOkResponse({ description: 'The sound; ranges are answered' })
  async readSound(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string, @Res() response: Response): Promise<void> {
    const row = await this.recordings.find(actor, recordingId);
    const file = found(row.soundFile, 'sound');
    await this.media.send(response, file, '.', { type: row.soundType ?? 'application/octet-stream', cacheControl: 'private, max-age=3600' });
  }

  private readFiles({ userId }: Actor, request: Request): Promise<BroughtIn> {
    return readBroughtIn(request, {
      stage: (stream, name) => this.media.stage(stream, name),
      take: async (uploadId) => {
        const { id, name } = await this.uploads.complete(userId, uploadId);
        return this.media.stageUploaded(id, name);
      },
      discard: (sound) => this.media.discard(sound),
    });
  }

  /** What was sent is put where media live while its sender waits: of many gigabytes, and over a slow line to a store, for minutes. */
  private async broughtIn(response: Response, files: BroughtIn, write: (files: BroughtIn) => Promise<RecordingView>): Promise<RecordingView> {
    const recording = await keptAwake(response, write(files));
    if (files.sound?.uploadId !== undefined) await this.uploads.forget(files.sound.uploadId);
    return recording;
  }
}
