import { Module } from '@nestjs/common';
import { ShortsModule } from '../shorts/shorts.module.js';
import { BatchesService } from './batches.service.js';
import { Clock } from './clock.js';
import { PlanningController } from './planning.controller.js';
import { PlanningService } from './planning.service.js';

@Module({
  imports: [ShortsModule],
  controllers: [PlanningController],
  providers: [PlanningService, BatchesService, Clock],
  exports: [PlanningService, BatchesService],
})
export class PlanningModule {}
