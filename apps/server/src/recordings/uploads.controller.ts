import { Controller, Delete, Head, Inject, Param, Patch, Post, Req, Res } from '@nestjs/common';
import { ApiExcludeController } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { ResumableUploads, UPLOADS_PATH } from './resumable-uploads.service.js';

/** The tus protocol: its own requests and answers, which no generated client speaks. */
@ApiExcludeController()
@Controller(UPLOADS_PATH)
export class UploadsController {
  constructor(@Inject(ResumableUploads) private readonly uploads: ResumableUploads) {}

  @Post()
  create(@CurrentActor() { userId }: Actor, @Req() request: Request, @Res() response: Response): Promise<void> {
    return this.uploads.handle(userId, null, request, response);
  }

  @Head(':uploadId')
  look(@CurrentActor() { userId }: Actor, @Param('uploadId') uploadId: string, @Req() request: Request, @Res() response: Response): Promise<void> {
    return this.uploads.handle(userId, uploadId, request, response);
  }

  @Patch(':uploadId')
  append(@CurrentActor() { userId }: Actor, @Param('uploadId') uploadId: string, @Req() request: Request, @Res() response: Response): Promise<void> {
    return this.uploads.handle(userId, uploadId, request, response);
  }

  @Delete(':uploadId')
  stop(@CurrentActor() { userId }: Actor, @Param('uploadId') uploadId: string, @Req() request: Request, @Res() response: Response): Promise<void> {
    return this.uploads.handle(userId, uploadId, request, response);
  }
}
