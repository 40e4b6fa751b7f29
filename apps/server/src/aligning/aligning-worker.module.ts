import { Module } from '@nestjs/common';
import { CONFIG, type Config } from '../config/config.module.js';
import { MediaModule } from '../media/media.module.js';
import { RecordingsModule } from '../recordings/recordings.module.js';
import { TextModule } from '../text/text.module.js';
import { AlignWork } from './align-work.service.js';
import { CommandRecogniser } from './command-recogniser.js';
import { Pocketsphinx } from './pocketsphinx.js';
import { RECOGNISER } from './recogniser.js';
import { TakeTimes } from './take-times.service.js';

const recogniser = {
  provide: RECOGNISER,
  inject: [CONFIG],
  useFactory: ({ recogniser: template }: Config) => (template === null ? new Pocketsphinx() : new CommandRecogniser(template)),
};

@Module({ imports: [MediaModule, RecordingsModule, TextModule], providers: [recogniser, TakeTimes, AlignWork] })
export class AligningWorkerModule {}
