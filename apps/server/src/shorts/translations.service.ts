import { ConflictException, Inject, Injectable, NotFoundException, UnprocessableEntityException } from '@nestjs/common';
import { checkTranslation, languageOf, readXliff, type Targets, textOfRuns, type TextUnit, writeXliff, XliffRefusedError } from '@sift-reel/core';
import { LANGUAGE_CODE, type TranslationForm, type TranslationReadForm, type XliffForm } from '@sift-reel/forms';
import type { AuditAction } from '../audit/trail-words.js';
import { AuditService } from '../audit/audit.service.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { User } from '../identity/identity.models.js';
import { InvalidFormException, StaleWriteException } from '../problems/refusals.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import { TextPool } from '../text/text-pool.service.js';
import { Apertium } from './apertium.service.js';
import { ProposalsService } from './proposals.service.js';
import { baseCopy } from './short-views.js';
import { passageOf, Short, Translation } from './shorts.models.js';
import { ShortsService } from './shorts.service.js';
import type { TranslationView } from './translations.views.js';

/** A short and what of it is translated. */
interface Job {
  readonly short: Short;
  readonly units: readonly TextUnit[];
  readonly talkLanguage: string;
}

/** Words and captions of shorts in other languages: typed, drafted by a program, or out and back as XLIFF. */
@Injectable()
export class TranslationsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ShortsService) private readonly shorts: ShortsService,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(ProposalsService) private readonly proposals: ProposalsService,
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(Apertium) private readonly apertium: Apertium,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  async list(actor: Actor, shortId: string): Promise<TranslationView[]> {
    const job = await this.jobOf(actor, shortId);
    const rows = await Translation.findAll({ where: { shortId, ...scoped(actor) }, order: ['language'] });
    const readers = await namesOf(rows);
    return rows.map((row) => this.viewOf(job, row.language, row, readers));
  }

  /** The translation of a short; all of it open where nobody has begun. */
  async read(actor: Actor, shortId: string, language: string): Promise<TranslationView> {
    const job = await this.jobOf(actor, shortId, language);
    const row = await Translation.findOne({ where: { shortId, language, ...scoped(actor) } });
    return this.viewOf(job, language, row, await namesOf([row]));
  }

  /** Texts of some units; those that are not named stay. */
  async save(actor: Actor, shortId: string, language: string, { targets, version }: TranslationForm): Promise<TranslationView> {
    const job = await this.jobOf(actor, shortId, language);
    const known = new Set(job.units.map(({ id }) => id));
    const errors = targets.flatMap(({ unit }, i) => (known.has(unit) ? [] : [{ field: `targets.${i}.unit`, detail: 'is no part of this short' }]));
    if (errors.length > 0) throw new InvalidFormException(errors);
    const texts = Object.fromEntries(targets.map(({ unit, text }) => [unit, text]));
    return this.put(actor, job, language, version, texts, null, 'translate');
  }

  /** What is not translated yet, by the program. */
  async draft(actor: Actor, shortId: string, language: string, version: number): Promise<TranslationView> {
    const job = await this.jobOf(actor, shortId, language);
    if (!this.apertium.can(job.talkLanguage, language))
      throw new ConflictException(
        `No program here drafts ${languageOf(language).name}. Debian’s apertium does so from English for Spanish, Catalan and Galician, once its pair is installed.`,
      );
    const row = await Translation.findOne({ where: { shortId, language, ...scoped(actor) } });
    const open = job.units.filter(({ id }) => (row?.targets[id] ?? '') === '');
    if (open.length === 0) throw new ConflictException('All of it is translated already.');
    const texts = await this.apertium.translate(
      language,
      open.map(({ source }) => source),
    );
    const drafted = Object.fromEntries(open.map(({ id }, i) => [id, texts[i]!]));
    return this.put(actor, job, language, version, drafted, 'apertium', 'draft-translation');
  }

  /** A person's word that all of it is read and right, as it is now; or that word taken back. */
  async setRead(actor: Actor, shortId: string, language: string, { read, version }: TranslationReadForm): Promise<TranslationView> {
    const job = await this.jobOf(actor, shortId, language);
    await this.database.transaction(async () => {
      const { row, short } = await this.lockSeen(actor, job, language, version);
      found(row, 'translation');
      if (short.version !== job.short.version) throw new ConflictException('The words of the short have just changed. Look at its translation again.');
      const open = checkTranslation(job.units, row!.targets).filter(({ rule }) => rule === 'missing');
      if (read && open.length > 0)
        throw new UnprocessableEntityException(open.length === 1 ? 'One text is not translated yet.' : `${open.length} texts are not translated yet.`);
      const sources = Object.fromEntries(job.units.map(({ id, source }) => [id, source]));
      await row!.update(
        read
          ? { readVersion: short.version, readBy: actor.userId, readAt: new Date(), sources, draftedBy: null }
          : { readVersion: null, readBy: null, readAt: null },
      );
      await this.record(actor, read ? 'read-translation' : 'unread-translation', short, language);
    });
    return this.read(actor, shortId, language);
  }

  async remove(actor: Actor, shortId: string, language: string, version: number): Promise<void> {
    const job = await this.jobOf(actor, shortId);
    await this.database.transaction(async () => {
      const { row, short } = await this.lockSeen(actor, job, language, version);
      await found(row, 'translation').destroy();
      await this.record(actor, 'remove-translation', short, language);
    });
  }

  /** The short to be translated, with what there is of its translation. */
  async exportXliff(actor: Actor, shortId: string, language: string): Promise<{ name: string[]; body: string }> {
    const { short, units, talkLanguage } = await this.jobOf(actor, shortId, language);
    const row = await Translation.findOne({ where: { shortId, language, ...scoped(actor) } });
    const title = baseCopy(short).title;
    const read = row !== null && row.readVersion === short.version;
    const body = writeXliff({ id: short.id, title, sourceLanguage: talkLanguage, targetLanguage: language, units, targets: row?.targets ?? {}, read });
    return { name: [short.recording.title, title, languageOf(language).name], body };
  }

  /** What a translator sends back. All of it is taken, or nothing. */
  async importXliff(actor: Actor, shortId: string, { xliff, version }: XliffForm): Promise<TranslationView> {
    const answer = read(xliff);
    if (!LANGUAGE_CODE.test(answer.targetLanguage))
      throw new UnprocessableEntityException(`line 1: trgLang is ${answer.targetLanguage}; a code such as es or pt-BR was expected.`);
    const job = await this.jobOf(actor, shortId, answer.targetLanguage);
    if (answer.id !== shortId) throw new UnprocessableEntityException('This XLIFF is of another short.');
    const known = new Map(job.units.map((unit) => [unit.id, unit]));
    const texts: Record<string, string> = {};
    for (const { id, line, source, target } of answer.units) {
      const unit = known.get(id);
      if (unit === undefined) throw new UnprocessableEntityException(`line ${line}: unit ${id} is no part of this short.`);
      const caption = unit.time !== null;
      if (textOfRuns(source, caption) !== unit.source.replace(/[^\S\n]+/g, ' ').trim())
        throw new UnprocessableEntityException(`line ${line}: the source of ${unit.name} is not what the short says now. Send it out again.`);
      const text = target === null ? '' : textOfRuns(target, caption);
      if (text.length > LONGEST) throw new UnprocessableEntityException(`line ${line}: more than ${LONGEST} characters`);
      if (UNKEEPABLE.test(text)) throw new UnprocessableEntityException(`line ${line}: the text holds characters that cannot be kept.`);
      if (text !== '') texts[id] = text;
    }
    if (Object.keys(texts).length === 0) throw new UnprocessableEntityException('Nothing in this XLIFF is translated.');
    return this.put(actor, job, answer.targetLanguage, version, texts, null, 'import-translation');
  }

  /** Captions of a short in another language. */
  async captions(actor: Actor, shortId: string, language: string, format: 'subrip' | 'webvtt'): Promise<{ name: string[]; body: string }> {
    const { short, units } = await this.jobOf(actor, shortId, language);
    const row = found(await Translation.findOne({ where: { shortId, language, ...scoped(actor) } }), 'translation');
    const lines = units.filter(({ time }) => time !== null);
    // A text that was translated from other words stands at another time.
    const open = lines.filter(({ id, source }) => (row.targets[id] ?? '') === '' || row.sources[id] !== source);
    if (open.length > 0)
      throw new ConflictException(
        `${open.length} of ${lines.length} captions are not translated into ${languageOf(language).name}, or have changed since then.`,
      );
    const { talk, clientId } = await this.recordings.readTalk(actor, short.recordingId);
    const texts = lines.map(({ id }) => row.targets[id]!);
    const body = await this.text.captions(clientId, { talk, ...passageOf(short), format, texts });
    return { name: [short.recording.title, baseCopy(short).title, languageOf(language).name, 'captions'], body };
  }

  private async jobOf(actor: Actor, shortId: string, language?: string): Promise<Job> {
    const short = await this.shorts.find(actor, shortId);
    const { talk } = await this.recordings.readTalk(actor, short.recordingId);
    const [spoken] = await this.database.rows<{ language: string }>('SELECT talk_language($1) AS language', [short.recordingId]);
    const talkLanguage = spoken!.language;
    if (language === talkLanguage) throw new ConflictException(`The talk is in ${languageOf(language).name} already.`);
    if (language !== undefined && languageOf(language).name === language) throw new NotFoundException(`There is no language “${language}”.`);
    const { clientId } = short;
    const limits = await this.proposals.limitsOf(clientId, null);
    const units = await this.text.translationUnits(clientId, { talk, ...passageOf(short), copy: baseCopy(short), limits });
    return { short, units, talkLanguage };
  }

  private async put(
    actor: Actor,
    { short, units }: Job,
    language: string,
    version: number,
    texts: Targets,
    draftedBy: string | null,
    action: AuditAction,
  ): Promise<TranslationView> {
    const sources = Object.fromEntries(units.filter(({ id }) => id in texts).map(({ id, source }) => [id, source]));
    await this.database.transaction(async () => {
      const { row } = await this.lockSeen(actor, { short, units, talkLanguage: '' }, language, version);
      if (row === null) await Translation.create({ clientId: short.clientId, shortId: short.id, language, targets: texts, sources, draftedBy });
      else
        await row.update({
          targets: { ...row.targets, ...texts },
          sources: { ...row.sources, ...sources },
          draftedBy: draftedBy ?? (units.every(({ id }) => id in texts) ? null : row.draftedBy),
        });
      await this.record(actor, action, short, language);
    });
    return this.read(actor, short.id, language);
  }

  /** The translation as it is under the short's lock. @throws StaleWriteException when it is not the version that was seen */
  private async lockSeen(actor: Actor, job: Job, language: string, version: number): Promise<{ row: Translation | null; short: Short }> {
    const shortId = job.short.id;
    const short = found(await Short.findOne({ where: { id: shortId, ...scoped(actor) }, lock: true }), 'short');
    const row = await Translation.findOne({ where: { shortId, language } });
    if ((row?.version ?? 0) !== version) throw new StaleWriteException('translation', this.viewOf(job, language, row, await namesOf([row])));
    return { row, short };
  }

  private viewOf({ short, units, talkLanguage }: Job, language: string, row: Translation | null, readers: ReadonlyMap<string, string>): TranslationView {
    const targets = row?.targets ?? {};
    const findings = checkTranslation(units, targets);
    const read = row !== null && row.readVersion !== null && row.readVersion === short.version;
    return {
      language,
      name: languageOf(language).name,
      readBy: read ? (readers.get(row.readBy ?? '') ?? 'a former user') : null,
      readAt: read ? row.readAt!.toISOString() : null,
      outdated: row !== null && row.readVersion !== null && !read,
      draftedBy: row?.draftedBy ?? null,
      draftable: this.apertium.can(talkLanguage, language),
      units: units.map(({ id, name, source, limit, time }) => ({
        id,
        name,
        source,
        target: targets[id] ?? '',
        limit,
        time: time === null ? null : { ...time },
        changed: (targets[id] ?? '') !== '' && row!.sources[id] !== source,
        findings: findings.filter(({ unit }) => unit === id).map(({ rule, detail }) => ({ rule, detail })),
      })),
      version: row?.version ?? 0,
    };
  }

  private async record(actor: Actor, action: AuditAction, { id, clientId }: Short, language: string): Promise<void> {
    await this.audit.record({ userId: actor.userId, clientId, action, subject: 'short', subjectId: id, detail: { language } });
  }
}

/** Names of those who have read them. */
async function namesOf(rows: readonly (Translation | null)[]): Promise<Map<string, string>> {
  const users = await User.findAll({ attributes: ['id', 'name'], where: { id: rows.flatMap((row) => row?.readBy ?? []) } });
  return new Map(users.map(({ id, name }) => [id, name]));
}

const LONGEST = 4_000;
const UNKEEPABLE = /[\0\p{Surrogate}]/u;

function read(xliff: string): ReturnType<typeof readXliff> {
  try {
    return readXliff(xliff);
  } catch (error) {
    if (error instanceof XliffRefusedError) throw new UnprocessableEntityException(`line ${error.line}: ${error.detail}`);
    throw error;
  }
}
