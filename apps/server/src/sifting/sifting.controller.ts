import { Body, Controller, Delete, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Put, Query } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiQuery, ApiTags } from '@nestjs/swagger';
import { BriefForm, CandidateStateForm, OwnCandidateForm, WordSpanForm } from '@sift-reel/forms';
import { InvalidFormException } from '../problems/refusals.js';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { CandidatesService } from './candidates.service.js';
import { OwnCandidatesService } from './own-candidates.service.js';
import { SearchService } from './search.service.js';
import { SiftingService } from './sifting.service.js';
import { CandidateView, RankingView, SearchView, SiftView } from './sifting.views.js';

const LONGEST_QUERY = 200;

@ApiTags('sifting')
@Controller()
export class SiftingController {
  constructor(
    @Inject(SiftingService) private readonly sifting: SiftingService,
    @Inject(CandidatesService) private readonly candidates: CandidatesService,
    @Inject(SearchService) private readonly searching: SearchService,
    @Inject(OwnCandidatesService) private readonly own: OwnCandidatesService,
  ) {}

  @Get('recordings/:recordingId/sifts')
  @ApiOkResponse({ type: [SiftView] })
  listSifts(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string): Promise<SiftView[]> {
    return this.sifting.list(actor, recordingId);
  }

  @Post('recordings/:recordingId/sifts')
  @ApiCreatedResponse({ type: SiftView })
  startSift(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string, @Body() form: BriefForm): Promise<SiftView> {
    return this.sifting.start(actor, recordingId, form);
  }

  @Get('recordings/:recordingId/search')
  @ApiQuery({ name: 'q', type: String })
  @ApiOkResponse({ type: SearchView })
  searchRecording(@CurrentActor() actor: Actor, @Param('recordingId', ParseUUIDPipe) recordingId: string, @Query('q') query = ''): Promise<SearchView> {
    if (typeof query !== 'string' || query.trim() === '' || query.length > LONGEST_QUERY)
      throw new InvalidFormException([{ field: 'q', detail: `must be 1 to ${LONGEST_QUERY} characters` }]);
    return this.searching.search(actor, recordingId, query.trim());
  }

  @Post('sifts/:siftId/candidates')
  @ApiCreatedResponse({ type: CandidateView })
  async addCandidate(@CurrentActor() actor: Actor, @Param('siftId', ParseUUIDPipe) siftId: string, @Body() form: OwnCandidateForm): Promise<CandidateView> {
    return this.candidates.read(actor, await this.own.add(actor, siftId, form));
  }

  @Delete('candidates/:candidateId')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeCandidate(@CurrentActor() actor: Actor, @Param('candidateId', ParseUUIDPipe) candidateId: string): Promise<void> {
    return this.own.remove(actor, candidateId);
  }

  @Get('sifts/:siftId')
  @ApiOkResponse({ type: SiftView })
  readSift(@CurrentActor() actor: Actor, @Param('siftId', ParseUUIDPipe) siftId: string): Promise<SiftView> {
    return this.sifting.read(actor, siftId);
  }

  @Get('sifts/:siftId/ranking')
  @ApiOkResponse({ type: RankingView })
  readRanking(@CurrentActor() actor: Actor, @Param('siftId', ParseUUIDPipe) siftId: string): Promise<RankingView> {
    return this.sifting.readRanking(actor, siftId);
  }

  @Post('sifts/:siftId/cancel')
  @HttpCode(200)
  @ApiOkResponse({ type: SiftView })
  cancelSift(@CurrentActor() actor: Actor, @Param('siftId', ParseUUIDPipe) siftId: string): Promise<SiftView> {
    return this.sifting.cancel(actor, siftId);
  }

  @Post('sifts/:siftId/retry')
  @HttpCode(200)
  @ApiOkResponse({ type: SiftView })
  retrySift(@CurrentActor() actor: Actor, @Param('siftId', ParseUUIDPipe) siftId: string): Promise<SiftView> {
    return this.sifting.retry(actor, siftId);
  }

  @Put('candidates/:candidateId/state')
  @ApiOkResponse({ type: CandidateView })
  setCandidateState(
    @CurrentActor() actor: Actor,
    @Param('candidateId', ParseUUIDPipe) candidateId: string,
    @Body() form: CandidateStateForm,
  ): Promise<CandidateView> {
    return this.candidates.setState(actor, candidateId, form.state);
  }

  @Put('candidates/:candidateId/span')
  @ApiOkResponse({ type: CandidateView })
  setCandidateSpan(@CurrentActor() actor: Actor, @Param('candidateId', ParseUUIDPipe) candidateId: string, @Body() form: WordSpanForm): Promise<CandidateView> {
    return this.candidates.setSpan(actor, candidateId, form.firstWord, form.endWord);
  }
}
