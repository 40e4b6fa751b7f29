import { BadRequestException, Body, Controller, Delete, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Put, Query, Res } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiQuery, ApiTags } from '@nestjs/swagger';
import { dayNumber, fileName, formatDay, planCalendar, planCsv } from '@sift-reel/core';
import { AcceptForm, BatchChangeForm, BatchForm, LayOutForm, MovableForm, MovePostForm, MovePostsForm, PlanFileForm, PostStateForm } from '@sift-reel/forms';
import type { Response } from 'express';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { sendFile } from '../shorts/send-file.js';
import { BatchesService } from './batches.service.js';
import { Clock } from '../config/clock.js';
import { PlacingService } from './placing.service.js';
import { PlanFileService } from './plan-file.service.js';
import { PlanningService } from './planning.service.js';
import { BatchView, PlanFileView, PostView, ProposalView, ScheduleView } from './planning.views.js';

@ApiTags('planning')
@Controller()
export class PlanningController {
  constructor(
    @Inject(PlanningService) private readonly planning: PlanningService,
    @Inject(PlacingService) private readonly placing: PlacingService,
    @Inject(PlanFileService) private readonly planFiles: PlanFileService,
    @Inject(BatchesService) private readonly batches: BatchesService,
    @Inject(Clock) private readonly clock: Clock,
  ) {}

  @Get('batches')
  @ApiOkResponse({ type: [BatchView] })
  listBatches(@CurrentActor() actor: Actor): Promise<BatchView[]> {
    return this.batches.list(actor);
  }

  @Post('batches')
  @ApiCreatedResponse({ type: BatchView })
  createBatch(@CurrentActor() actor: Actor, @Body() form: BatchForm): Promise<BatchView> {
    return this.batches.create(actor, form);
  }

  @Put('batches/:batchId')
  @ApiOkResponse({ type: BatchView })
  updateBatch(@CurrentActor() actor: Actor, @Param('batchId', ParseUUIDPipe) batchId: string, @Body() form: BatchChangeForm): Promise<BatchView> {
    return this.batches.update(actor, batchId, form);
  }

  @Delete('batches/:batchId')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeBatch(@CurrentActor() actor: Actor, @Param('batchId', ParseUUIDPipe) batchId: string): Promise<void> {
    return this.batches.remove(actor, batchId);
  }

  @Get('schedule')
  @ApiOkResponse({ type: ScheduleView })
  readSchedule(@CurrentActor() actor: Actor): Promise<ScheduleView> {
    return this.planning.read(actor);
  }

  @Post('schedule/proposals')
  @HttpCode(200)
  @ApiOkResponse({ type: ProposalView })
  proposePlan(@CurrentActor() actor: Actor, @Body() form: LayOutForm): Promise<ProposalView> {
    return this.planning.propose(actor, form);
  }

  /** Says what of a plan that was made elsewhere can be placed; nothing is written. */
  @Post('schedule/readings')
  @HttpCode(200)
  @ApiOkResponse({ type: PlanFileView })
  readPlanFile(@CurrentActor() actor: Actor, @Body() form: PlanFileForm): Promise<PlanFileView> {
    return this.planFiles.read(actor, form);
  }

  @Post('schedule/posts')
  @ApiCreatedResponse({ type: [PostView] })
  acceptPlan(@CurrentActor() actor: Actor, @Body() form: AcceptForm): Promise<PostView[]> {
    return this.placing.accept(actor, form);
  }

  @Put('posts/:postId/place')
  @ApiOkResponse({ type: PostView })
  movePost(@CurrentActor() actor: Actor, @Param('postId', ParseUUIDPipe) postId: string, @Body() form: MovePostForm): Promise<PostView> {
    return this.placing.move(actor, postId, form);
  }

  @Put('posts/places')
  @ApiOkResponse({ type: [PostView] })
  movePosts(@CurrentActor() actor: Actor, @Body() form: MovePostsForm): Promise<PostView[]> {
    return this.placing.moveAll(actor, form.moves);
  }

  /** Says of planned posts that laying out may move them, or that they stay. */
  @Put('posts/movable')
  @ApiOkResponse({ type: [PostView] })
  setPostsMovable(@CurrentActor() actor: Actor, @Body() form: MovableForm): Promise<PostView[]> {
    return this.placing.setMovable(actor, form);
  }

  @Put('posts/:postId/state')
  @ApiOkResponse({ type: PostView })
  setPostState(@CurrentActor() actor: Actor, @Param('postId', ParseUUIDPipe) postId: string, @Body() form: PostStateForm): Promise<PostView> {
    return this.placing.setState(actor, postId, form);
  }

  @Delete('posts/:postId')
  @HttpCode(204)
  @ApiNoContentResponse()
  takeOffPost(@CurrentActor() actor: Actor, @Param('postId', ParseUUIDPipe) postId: string): Promise<void> {
    return this.placing.takeOff(actor, postId);
  }

  @Get('schedule/plan.csv')
  @ApiOkResponse({ description: 'CSV (RFC 4180)' })
  @ApiQuery({ name: 'clientId', required: false, type: String })
  async exportPlanCsv(
    @CurrentActor() actor: Actor,
    @Res() response: Response,
    @Query('from') from: string,
    @Query('to') to: string,
    @Query('clientId', new ParseUUIDPipe({ optional: true })) clientId?: string,
  ): Promise<void> {
    const rows = await this.rowsOf(actor, from, to, clientId);
    sendFile(response, fileName(planName(from, to), 'csv'), 'text/csv; charset=utf-8', planCsv(rows));
  }

  @Get('schedule/plan.ics')
  @ApiOkResponse({ description: 'iCalendar (RFC 5545)' })
  @ApiQuery({ name: 'clientId', required: false, type: String })
  async exportPlanCalendar(
    @CurrentActor() actor: Actor,
    @Res() response: Response,
    @Query('from') from: string,
    @Query('to') to: string,
    @Query('clientId', new ParseUUIDPipe({ optional: true })) clientId?: string,
  ): Promise<void> {
    const rows = await this.rowsOf(actor, from, to, clientId);
    sendFile(
      response,
      fileName(planName(from, to), 'ics'),
      'text/calendar; charset=utf-8',
      planCalendar(rows, planName(from, to).join(' '), this.clock.nowMs()),
    );
  }

  private rowsOf(actor: Actor, from: string, to: string, clientId?: string): ReturnType<PlanningService['rows']> {
    requireDay('from', from);
    requireDay('to', to);
    return this.planning.rows(actor, from, to, clientId);
  }
}

function planName(from: string, to: string): string[] {
  return ['Posting plan', `${formatDay(from)} to ${formatDay(to)} ${to.slice(0, 4)}`];
}

function requireDay(name: string, text: string): void {
  try {
    dayNumber(text);
  } catch {
    throw new BadRequestException(`${name} must be a day, YYYY-MM-DD`);
  }
}
