import { Module } from '@nestjs/common';
import { ClientsModule } from '../clients/clients.module.js';
import { RecordingsModule } from '../recordings/recordings.module.js';
import { ShortsModule } from '../shorts/shorts.module.js';
import { BatchesService } from './batches.service.js';
import { CalendarsController } from './calendars.controller.js';
import { CalendarsService } from './calendars.service.js';
import { PlacingService } from './placing.service.js';
import { PlanFileService } from './plan-file.service.js';
import { PlanLoader } from './plan-loader.service.js';
import { PlanningController } from './planning.controller.js';
import { PlanningService } from './planning.service.js';

@Module({
  imports: [ClientsModule, RecordingsModule, ShortsModule],
  controllers: [PlanningController, CalendarsController],
  providers: [PlanningService, PlacingService, PlanLoader, PlanFileService, BatchesService, CalendarsService],
})
export class PlanningModule {}
