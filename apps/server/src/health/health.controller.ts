import { Controller, Get, Inject, ServiceUnavailableException } from '@nestjs/common';
import { InjectConnection } from '@nestjs/sequelize';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { Flag } from '@sift-reel/forms';
import { Sequelize } from 'sequelize-typescript';
import { Public } from '../identity/session.guard.js';
import { QueueService } from '../jobs/queue.service.js';

export class HealthView {
  @Flag() database: boolean;
  @Flag() queue: boolean;
}

const PATIENCE_MS = 2_000;

@ApiTags('health')
@Controller('health')
export class HealthController {
  constructor(
    @InjectConnection() private readonly sequelize: Sequelize,
    @Inject(QueueService) private readonly queue: QueueService,
  ) {}

  @Public()
  @Get()
  @ApiOkResponse({ type: HealthView })
  async readHealth(): Promise<HealthView> {
    const [database, queue] = await Promise.all([answers(this.sequelize.query('SELECT 1')), answers(this.queue.answers())]);
    if (!database || !queue)
      throw new ServiceUnavailableException(`${database ? '' : 'The database does not answer. '}${queue ? '' : 'The queue does not answer.'}`.trim());
    return { database, queue };
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
