import { basename, extname } from 'node:path';
import { Transaction } from 'sequelize';
import { ConflictException, Inject, Injectable, type OnModuleDestroy, type OnModuleInit, UnprocessableEntityException } from '@nestjs/common';
import type { RecordingForm, SoundTrackForm, VoiceNamesForm } from '@sift-reel/forms';
import { InvalidFormException, TranscriptRefusedException } from '../problems/refusals.js';
import type { AuditAction } from '../audit/trail-words.js';
import { AuditService } from '../audit/audit.service.js';
import { ClientFacts } from '../clients/client-facts.js';
import { Client } from '../clients/clients.models.js';
import { log } from '../config/logger.js';
import { Rounds } from '../config/rounds.js';
import { Database } from '../database/database.service.js';
import { claimVersion } from '../database/versions.js';
import { type Actor, found, requireClient, scoped } from '../identity/actor.js';
import { MediaStore } from '../media/media-store.service.js';
import { TaskGivenUpError, TextPool } from '../text/text-pool.service.js';
import type { StoredTalk } from '../text/unpack.js';
import type { BroughtIn, Talk, ToStore } from './bring-in.js';
import { type NamedText, RecordingFacts } from './recording-facts.js';
import { Recording, TranscriptRow } from './recordings.models.js';
import { type TimesOfWords, withLevels } from './stored-talk.js';
import type { RecordingView, RepairsView, TranscriptReadingView } from './recordings.views.js';

/** On whose behalf something is brought in. */
interface Bringer {
  readonly userId: string | null;
  /** Whose work in threads it is. */
  readonly turn: string;
  /** A transcript that is there already stays. */
  readonly keepsTranscript: boolean;
}
const bringer = ({ userId, clientIds }: Actor): Bringer => ({ userId, turn: clientIds === 'all' ? 'owner' : userId, keepsTranscript: false });

const NO_TIMES = 'there is no cue timing and no time before what is said; bring the sound in with it, then its times are heard';
/** Of what was repaired, shown before a file is taken. */
const FIRST_REPAIRS = 20;
/** Files that nobody names are looked for at start and this often. */
const SWEEP_EVERY_MS = 10 * 60_000;

@Injectable()
export class RecordingsService implements OnModuleInit, OnModuleDestroy {
  private readonly rounds = new Rounds('left files', SWEEP_EVERY_MS, () => this.sweepFiles());

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(MediaStore) private readonly media: MediaStore,
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(RecordingFacts) private readonly facts: RecordingFacts,
    @Inject(ClientFacts) private readonly clientFacts: ClientFacts,
  ) {}

  async onModuleInit(): Promise<void> {
    this.clientFacts.provideRecordingCounts(async () => {
      const rows = await this.database.rows<{ clientId: string; n: number }>(
        'SELECT client_id AS "clientId", count(*)::int AS n FROM recordings GROUP BY client_id',
      );
      return new Map(rows.map(({ clientId, n }) => [clientId, n]));
    });
    await this.rounds.begin();
  }

  onModuleDestroy(): void {
    this.rounds.end();
  }

  private async sweepFiles(): Promise<void> {
    const swept = await this.media.sweep(async () => new Set((await Recording.findAll({ attributes: ['soundFile'] })).flatMap((row) => row.soundFile ?? [])));
    if (swept > 0) log.warn({ files: swept }, 'files that nobody names were swept away');
  }

  async list(actor: Actor, clientId?: string): Promise<RecordingView[]> {
    if (clientId !== undefined) requireClient(actor, clientId);
    return this.database.snapshot(async () =>
      this.views(
        await Recording.findAll({
          where: { ...scoped(actor), ...(clientId === undefined ? {} : { clientId }) },
          include: [{ model: TranscriptRow, attributes: { exclude: ['packed', 'repairs'] } }],
          order: [['createdAt', 'DESC']],
        }),
      ),
    );
  }

  async read(actor: Actor, recordingId: string): Promise<RecordingView> {
    return this.database.snapshot(async () => (await this.views([await this.find(actor, recordingId)]))[0]!);
  }

  /** Inside a snapshot: a recording and what its jobs say of it are of one moment. */
  private async views(rows: readonly Recording[]): Promise<RecordingView[]> {
    const ids = rows.map((row) => row.id);
    const [sifts, preparations] = [await this.facts.latestSifts(ids), await this.facts.preparationsOf(ids)];
    const [alignments, fetches] = [await this.facts.alignmentsOf(ids), await this.facts.fetchesOf(ids)];
    return rows.map((row) =>
      toView(row, {
        latestSift: sifts.get(row.id) ?? null,
        preparation: preparations.get(row.id) ?? null,
        alignment: alignments.get(row.id) ?? null,
        fetch: fetches.get(row.id) ?? null,
      }),
    );
  }

  async find(actor: Pick<Actor, 'clientIds'>, recordingId: string): Promise<Recording> {
    return found(
      await Recording.findOne({
        where: { id: recordingId, ...scoped(actor) },
        include: [{ model: TranscriptRow, attributes: { exclude: ['packed', 'repairs'] } }],
      }),
      'recording',
    );
  }

  /** @throws NotFoundException when the client is not there, is archived, or is not the actor's to see */
  async requireOpenClient(actor: Actor, clientId: string): Promise<void> {
    requireClient(actor, clientId);
    found(await Client.findOne({ where: { id: clientId, archivedAt: null }, attributes: ['id'] }), 'client');
  }

  /** A new recording from what was brought in. All of it, or nothing. */
  async create(actor: Actor, clientId: string, brought: BroughtIn): Promise<RecordingView> {
    const id = await this.store(bringer(actor), brought, 'bring-in', async () => {
      await this.requireOpenClient(actor, clientId);
      const named = brought.transcript?.name ?? brought.sound?.name;
      if (named === undefined) throw new UnprocessableEntityException('Send a transcript, a sound file, or both.');
      const base = basename(named, extname(named));
      const title = brought.title ?? (base.replace(/[_-]+/g, ' ').trim().slice(0, 160) || 'Untitled');
      return Recording.create({ clientId, title, baseName: base, createdBy: actor.userId });
    });
    return this.read(actor, id);
  }

  /** Adds what a recording waits for. What shorts or sifts rest on is not replaced under them. */
  async add(actor: Actor, recordingId: string, brought: BroughtIn): Promise<RecordingView> {
    await this.store(bringer(actor), brought, 'add-to', async () => {
      await Recording.findByPk(recordingId, { attributes: ['id'], lock: true }); // a sift that starts holds it, too
      const row = await this.find(actor, recordingId);
      if (brought.transcript !== null && row.transcript != null && (await this.facts.latestSifts([row.id])).has(row.id))
        throw new ConflictException('This recording was sifted with the transcript it has. Bring the new one in as a recording of its own.');
      const objection = brought.sound === null || row.soundFile === null ? null : await this.facts.objectionTo('replace-sound', row.id);
      if (objection !== null) throw new ConflictException(objection);
      return row;
    });
    return this.read(actor, recordingId);
  }

  /**
   * Gives a recording what was fetched for it, together with what `commit` writes. A transcript that somebody added meanwhile stays.
   * @throws ConflictException when it was given its sound by hand meanwhile
   */
  async receive(by: Bringer, recordingId: string, brought: ToStore, commit: (write: () => Promise<void>) => Promise<void>): Promise<void> {
    await this.store(
      by,
      brought,
      'add-to',
      async () => {
        const row = await Recording.findByPk(recordingId, { include: [{ model: TranscriptRow, attributes: ['durationMs', 'recordingId'] }] });
        if (row === null) throw new ConflictException('The recording is gone.');
        if (row.soundFile !== null) throw new ConflictException('This recording was given its sound by hand meanwhile.');
        return row;
      },
      commit,
    );
  }

  /** Writes the rows and gives the sound its lasting name; whatever fails before the rows stand, no file stays. @returns the recording's id */
  private async store(
    by: Bringer,
    brought: ToStore,
    action: AuditAction,
    target: () => Promise<Recording>,
    commit: (write: () => Promise<void>) => Promise<void> = (write) => this.database.transaction(write),
  ): Promise<string> {
    let kept: string | null = null;
    let stored: { id: string; replaced: string | null } | null = null;
    try {
      const { transcript } = brought;
      const read = transcript === null ? null : 'talk' in transcript ? transcript.talk : await this.prepare(by.turn, transcript);
      const sound = brought.sound === null ? null : { ...(await this.media.keep(brought.sound)), of: brought.sound };
      kept = sound?.file ?? null;
      await commit(async () => {
        const row = await target();
        const talk = action === 'add-to' && by.keepsTranscript && row.transcript != null ? null : read;
        const prepared = talk?.kind === 'prepared' ? talk.transcript : null;
        const replaced = sound === null ? null : row.soundFile;
        if (prepared !== null && transcript !== null) {
          const { packed, excerpt: _, ...fields } = prepared;
          await TranscriptRow.destroy({ where: { recordingId: row.id } });
          await TranscriptRow.create({
            ...fields,
            recordingId: row.id,
            clientId: row.clientId,
            sourceName: transcript.name,
            packed: Buffer.from(packed),
          });
        }
        const spokenMs = prepared?.durationMs ?? row.transcript?.durationMs ?? (row.transcript == null ? 0 : (row.durationMs ?? 0));
        const { id, clientId: ofClient, title } = row;
        if (sound !== null) {
          const { name, bytes, durationMs } = sound.of;
          await row.update({
            soundFile: sound.file,
            soundName: name,
            soundBytes: String(bytes),
            soundType: sound.type,
            picture: sound.of.picture,
            soundTracks: [...sound.of.soundTracks],
            soundTrack: sound.of.soundTracks.length === 0 ? null : 0,
            durationMs: Math.max(durationMs, spokenMs),
          });
        } else if (prepared !== null) await row.update({ durationMs: Math.max(spokenMs, row.soundFile === null ? 0 : (row.durationMs ?? 0)) });
        if (talk?.kind === 'untimed') await this.letBeHeard(row, { ...talk.text, name: transcript!.name });
        if (sound !== null) await this.facts.fileCameIn(row);
        else if (prepared !== null) await this.facts.transcriptCameIn(row);
        if (prepared !== null) await this.facts.wordsHaveTimes(id);
        await this.audit.record({ userId: by.userId, clientId: ofClient, action, subject: 'recording', subjectId: id, detail: { title } });
        stored = { id, replaced };
      });
    } catch (error) {
      if (kept !== null) await this.media.remove(kept);
      if (brought.sound !== null) await this.media.discard(brought.sound);
      throw error;
    }
    const { id, replaced } = stored as unknown as { id: string; replaced: string | null }; // written in there
    if (replaced !== null) await this.media.remove(replaced);
    return id;
  }

  /** Text without times waits for them to be heard. */
  private async letBeHeard(row: Recording, text: NamedText): Promise<void> {
    if (row.soundFile === null || row.soundTrack === null) throw new TranscriptRefusedException(text.name, 1, null, 'unknown-format', NO_TIMES);
    // What was read before is not lost for a text that may never be found in the sound.
    if ((await TranscriptRow.count({ where: { recordingId: row.id } })) > 0)
      throw new ConflictException('This recording has a transcript. Bring the text in with its sound as a recording of its own.');
    await this.facts.untimedCameIn(row, text);
  }

  /**
   * Reads a transcript in a thread.
   * @param turn whose work it is: nobody's takes all threads
   * @throws TranscriptRefusedException, UnprocessableEntityException
   */
  async prepare(turn: string, file: { name: string; bytes: Uint8Array }): Promise<Talk> {
    const outcome = await this.text.prepareTranscript(turn, file.bytes).catch((error: unknown) => {
      if (error instanceof TaskGivenUpError) throw new UnprocessableEntityException(`“${file.name}” cannot be read as a transcript: ${error.message}.`);
      throw error;
    });
    if (outcome.kind === 'refused') throw new TranscriptRefusedException(file.name, outcome.line, outcome.field, outcome.code, outcome.detail);
    return outcome;
  }

  /** How a transcript would be understood; nothing is kept of it. */
  async readTranscriptFile({ userId }: Actor, file: { name: string; bytes: Uint8Array }): Promise<TranscriptReadingView> {
    const talk = await this.prepare(userId, file);
    const { speakers, excerpt, repairs } = talk.kind === 'prepared' ? talk.transcript : talk.text;
    const shown = { sourceName: file.name, speakers: [...speakers], excerpt: [...excerpt], repairs: [...repairs].slice(0, FIRST_REPAIRS) };
    if (talk.kind === 'prepared') {
      const { packed: _, ...facts } = talk.transcript;
      return { ...facts, ...shown, timed: true };
    }
    const { format, encoding, wordCount } = talk.text;
    const unknown = { sentenceCount: 0, wordTimes: 'heard', sentenceEnds: 'written', durationMs: 0 } as const;
    return { ...shown, ...unknown, format, encoding, wordCount, repairCount: repairs.length, timed: false };
  }

  /** Names of those who speak, for the whole recording at once. Words and times stay. */
  async nameVoices(actor: Actor, recordingId: string, { names, unnamed, version }: VoiceNamesForm): Promise<RecordingView> {
    await this.find(actor, recordingId);
    await this.database.transaction(async () => {
      const row = await claimVersion(Recording, recordingId, version, 'recording', () => this.read(actor, recordingId));
      const transcript = found(await TranscriptRow.findByPk(recordingId, { attributes: ['recordingId', 'packed', 'speakers'], lock: true }), 'transcript');
      if (names.length !== transcript.speakers.length)
        throw new InvalidFormException([{ field: 'names', detail: `There are ${transcript.speakers.length} voices; name each of them.` }]);
      const { packed, speakers } = await this.text.nameVoices(row.clientId, { packed: transcript.packed, names, unnamed: unnamed === '' ? null : unnamed });
      await transcript.update({ packed: Buffer.from(packed), speakers: [...speakers] });
      const { clientId, title, id } = row;
      await this.audit.record({ userId: actor.userId, clientId, action: 'name-voices', subject: 'recording', subjectId: id, detail: { title } });
    });
    return this.read(actor, recordingId);
  }

  async rename(actor: Actor, recordingId: string, form: RecordingForm): Promise<RecordingView> {
    await this.find(actor, recordingId);
    await this.database.transaction(async () => {
      const row = await claimVersion(Recording, recordingId, form.version, 'recording', () => this.read(actor, recordingId));
      await row.update({ title: form.title });
      const { clientId, id } = row;
      await this.audit.record({ userId: actor.userId, clientId, action: 'rename', subject: 'recording', subjectId: id, detail: { title: form.title } });
    });
    return this.read(actor, recordingId);
  }

  /** Takes another of a file's sound tracks: it is heard and prepared anew. */
  async chooseTrack(actor: Actor, recordingId: string, { track, version }: SoundTrackForm): Promise<RecordingView> {
    await this.find(actor, recordingId);
    await this.database.transaction(async () => {
      const row = await claimVersion(Recording, recordingId, version, 'recording', () => this.read(actor, recordingId));
      if (track >= row.soundTracks.length) throw new InvalidFormException([{ field: 'track', detail: 'The file has no such sound track.' }]);
      if (row.soundTrack === track) return;
      const objection = await this.facts.objectionTo('replace-sound', recordingId);
      if (objection !== null) throw new ConflictException(objection);
      await row.update({ soundTrack: track });
      await this.facts.fileCameIn(row);
      const { clientId, title, id } = row;
      await this.audit.record({ userId: actor.userId, clientId, action: 'choose-track', subject: 'recording', subjectId: id, detail: { title } });
    });
    return this.read(actor, recordingId);
  }

  async remove(actor: Actor, recordingId: string): Promise<void> {
    const soundFile = await this.database.transaction(async () => {
      await Recording.findByPk(recordingId, { attributes: ['id'], lock: true });
      const row = await this.find(actor, recordingId);
      const objection = await this.facts.objectionTo('remove', recordingId);
      if (objection !== null) throw new ConflictException(objection);
      await this.facts.takeAlong(recordingId);
      await row.destroy();
      const { clientId, title } = row;
      await this.audit.record({ userId: actor.userId, clientId, action: 'delete', subject: 'recording', subjectId: recordingId, detail: { title } });
      return row.soundFile;
    });
    if (soundFile !== null) await this.media.remove(soundFile);
  }

  /** The packed transcript, gzipped. */
  async readPacked(actor: Actor, recordingId: string): Promise<Buffer> {
    return found(await TranscriptRow.findOne({ where: { recordingId, ...scoped(actor) }, attributes: ['packed'] }), 'transcript').packed;
  }

  /** The transcript as it is cut, with what must hold still while something is written by it: see `requireTimes`. */
  async readTalk(actor: Actor, recordingId: string): Promise<Pick<TranscriptRow, 'clientId'> & { readonly talk: StoredTalk; readonly times: TimesOfWords }> {
    const row = await TranscriptRow.findOne({ where: { recordingId, ...scoped(actor) }, attributes: ['packed', 'clientId', 'wordTimes', 'endsHeardIn'] });
    const { packed, clientId, wordTimes, endsHeardIn } = found(row, 'transcript');
    return { talk: await withLevels(recordingId, { packed, endsHeardIn }), clientId, times: { wordTimes, endsHeardIn } };
  }

  /**
   * Holds a transcript's times as they were read, to the end of the transaction.
   * @throws ConflictException when others were heard meanwhile
   */
  async requireTimes(recordingId: string, { wordTimes, endsHeardIn }: TimesOfWords): Promise<void> {
    const row = await TranscriptRow.findByPk(recordingId, { attributes: ['wordTimes', 'endsHeardIn'], lock: Transaction.LOCK.SHARE });
    if (row?.wordTimes !== wordTimes || row.endsHeardIn !== endsHeardIn)
      throw new ConflictException('The true times of its words were heard just now. Try again.');
  }

  async readRepairs(actor: Actor, recordingId: string): Promise<RepairsView> {
    const row = found(
      await TranscriptRow.findOne({ where: { recordingId, ...scoped(actor) }, attributes: ['sourceName', 'repairCount', 'repairs'] }),
      'transcript',
    );
    return { sourceName: row.sourceName, count: row.repairCount, repairs: row.repairs };
  }
}

type BuiltOn = Pick<RecordingView, 'latestSift' | 'preparation' | 'alignment' | 'fetch'>;

function toView(row: Recording, builtOn: BuiltOn): RecordingView {
  const sound =
    row.soundFile === null || row.soundFile === undefined
      ? null
      : {
          name: row.soundName ?? '',
          type: row.soundType ?? '',
          bytes: Number(row.soundBytes),
          picture: row.picture === null ? null : { width: row.picture.width, height: row.picture.height },
          tracks: row.soundTracks,
          track: row.soundTrack,
        };
  const t = row.transcript;
  const transcript =
    t === null || t === undefined
      ? null
      : {
          sourceName: t.sourceName,
          format: t.format,
          encoding: t.encoding,
          wordCount: t.wordCount,
          sentenceCount: t.sentenceCount,
          speakers: t.speakers,
          wordTimes: t.wordTimes,
          sentenceEnds: t.sentenceEnds,
          repairCount: t.repairCount,
        };
  return {
    id: row.id,
    clientId: row.clientId,
    title: row.title,
    durationMs: row.durationMs ?? null,
    sound,
    transcript,
    ...builtOn,
    origin: row.origin === null || row.origin === undefined ? null : { ...row.origin, persons: [...row.origin.persons], chapters: [...row.origin.chapters] },
    createdAt: row.createdAt.toISOString(),
    version: row.version,
  };
}
