import { Controller, Get, Inject, ServiceUnavailableException } from '@nestjs/common';
import { InjectConnection } from '@nestjs/sequelize';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { Flag } from '@sift-reel/forms';
import { Sequelize } from 'sequelize-typescript';
import { Public } from '../identity/session.guard.js';
import { EventsService } from '../jobs/events.service.js';
import { JobsService } from '../jobs/jobs.service.js';

export class HealthView {
  @Flag() database: boolean;
  @Flag({ description: 'The table of jobs answers' }) queue: boolean;
  @Flag({ description: 'What workers tell is heard' }) events: boolean;
}

const PATIENCE_MS = 2_000;

@ApiTags('health')
@Controller('health')
export class HealthController {
  constructor(
    @InjectConnection() private readonly sequelize: Sequelize,
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(EventsService) private readonly events: EventsService,
  ) {}

  @Public()
  @Get()
  @ApiOkResponse({ type: HealthView })
  async readHealth(): Promise<HealthView> {
    const [database, queue] = await Promise.all([answers(this.sequelize.query('SELECT 1')), answers(this.jobs.answers())]);
    const events = this.events.hears;
    const silent = [
      ...(database ? [] : ['The database does not answer.']),
      ...(queue ? [] : ['The queue does not answer.']),
      ...(events ? [] : ['Events of workers are not heard.']),
    ];
    if (silent.length > 0) throw new ServiceUnavailableException(silent.join(' '));
    return { database, queue, events };
  }
}

async function answers(question: Promise<unknown>): Promise<boolean> {
  const late = new Promise<false>((resolve) => {
    setTimeout(() => resolve(false), PATIENCE_MS).unref();
  });
  return Promise.race([
    question.then(
      () => true,
      () => false,
    ),
    late,
  ]);
}
