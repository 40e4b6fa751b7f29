import { Module } from '@nestjs/common';
import { ClientsModule } from '../clients/clients.module.js';
import { RecordingsModule } from '../recordings/recordings.module.js';
import { ShortsModule } from '../shorts/shorts.module.js';
import { BatchesService } from './batches.service.js';
import { Clock } from './clock.js';
import { PlanLoader } from './plan-loader.service.js';
import { PlanningController } from './planning.controller.js';
import { PlanningService } from './planning.service.js';

@Module({
  imports: [ClientsModule, RecordingsModule, ShortsModule],
  controllers: [PlanningController],
  providers: [PlanningService, PlanLoader, BatchesService, Clock],
})
export class PlanningModule {}
