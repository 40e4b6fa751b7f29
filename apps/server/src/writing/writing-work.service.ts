import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { characters, type Copy, type Finding, placeOfCharacter } from '@sift-reel/core';
import { Client } from '../clients/clients.models.js';
import { CONFIG, type Config } from '../config/config.module.js';
import { JobRefusedError } from '../jobs/job-kind.js';
import type { JobRun } from '../jobs/job-run.js';
import { JobWorker } from '../jobs/job-worker.service.js';
import { CandidateRow } from '../sifting/sifting.models.js';
import { Recording } from '../recordings/recordings.models.js';
import { CopyCheck } from '../shorts/copy-check.service.js';
import { Short } from '../shorts/shorts.models.js';
import { HttpWriter } from './http-writer.js';
import { WRITING } from './writing.kind.js';
import { Writing, type WritingFindings } from './writing.models.js';
import { WriterError, type WrittenWords } from './writer.js';

/** Puts questions to the writing service, in the worker, and checks what comes against what was said. */
@Injectable()
export class WritingWork implements OnModuleInit {
  constructor(
    @Inject(JobWorker) private readonly worker: JobWorker,
    @Inject(CopyCheck) private readonly check: CopyCheck,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  onModuleInit(): void {
    this.worker.register(WRITING, (writingId, run) => this.ask(writingId, run));
  }

  private async ask(writingId: string, run: JobRun): Promise<void> {
    const writing = await Writing.findByPk(writingId);
    if (writing === null) throw new JobRefusedError('The short is gone.');
    if (this.config.writingUrl === null) throw new JobRefusedError('No writing service is configured.');
    const client = await Client.findByPk(writing.clientId, { attributes: ['writingService'] });
    if (client?.writingService !== true) throw new JobRefusedError('The client does not allow the writing service any more.');
    run.report('asking', 0.1);
    const writer = new HttpWriter(this.config.writingUrl, this.config.writingKey);
    const { words, raw } = await writer.write(writing.request, run.signal).catch((error: unknown) => {
      if (error instanceof WriterError && !(error.again && run.attempt < WRITING.attempts)) throw new JobRefusedError(error.message);
      throw error;
    });
    run.report('checking', 0.8);
    const findings = await this.findingsOf(writing, words);
    await run.complete(async () => {
      await writing.update({ answer: raw, words, findings });
    });
  }

  private async findingsOf({ shortId, request }: Writing, words: WrittenWords): Promise<WritingFindings> {
    const short = await Short.findByPk(shortId, { include: [{ model: CandidateRow }, { model: Recording }] });
    if (short === null) throw new JobRefusedError('The short is gone.');
    const rest: Copy = { ...words, title: '' };
    const empty: Copy = { title: '', description: '', hashtags: [...words.hashtags], keywords: [], coverLine: '' };
    const { findings, speaksToProgram, language } = await this.check.check(short, [rest, ...words.titles.map((title) => ({ ...empty, title }))], {
      tellLanguage: true,
    });
    const [ofRest, ...ofTitles] = findings;
    const tooLong = (field: 'title' | 'description' | 'coverLine', text: string): Finding[] => {
      const [used, limit] = [characters(text), request.limits[field]];
      const detail = `${used} characters, ${limit} allowed`;
      return used <= limit ? [] : [{ field, item: null, from: placeOfCharacter(text, limit), to: text.length, rule: 'length', text: '', detail, mend: null }];
    };
    return {
      rest: [...ofRest!, ...tooLong('description', words.description), ...tooLong('coverLine', words.coverLine)],
      titles: ofTitles.map((list, i) => [...list.filter(({ field }) => field === 'title'), ...tooLong('title', words.titles[i]!)]),
      otherLanguage: language === null || language.code === request.language ? null : language.name,
      speaksToProgram,
    };
  }
}
