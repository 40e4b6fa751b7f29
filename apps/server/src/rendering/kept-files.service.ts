import { ConflictException, Inject, Injectable, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { AuditService } from '../audit/audit.service.js';
import { Rounds } from '../config/rounds.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, scoped, seenClients } from '../identity/actor.js';
import { MediaStore } from '../media/media-store.service.js';
import { Render } from './rendering.models.js';
import type { GoingFileView } from './rendering.views.js';

const LOOK_EVERY_MS = 10 * 60_000;
/** So many days beforehand it is told that a file will go, however long it is kept. */
const TOLD_DAYS = 7;
const MOST_SHOWN = 100;

/** When the time that the client gives a file is over. */
const OVER = `r.kept_from + c.files_kept_days * interval '1 day'`;
/** A file goes then, and not before it was told of for so long: whoever shortens the time takes nothing away at once. */
const GOES_AT = `greatest(${OVER}, r.announced_at + interval '${TOLD_DAYS} days')`;
/** A short that is still to go out keeps its files; so does one that is being sent, or may be sent again. */
const NOT_PLANNED = `NOT EXISTS (SELECT FROM posts p WHERE p.short_id = r.short_id AND p.state <> 'posted')`;

/**
 * The time is nearly over, of a short that is not to go out any more and a client whom somebody sees: nobody is told of what an archived
 * one owns, so nothing of that goes. $1 now
 */
const NEAR = `coalesce(c.archived_at IS NULL AND ${NOT_PLANNED} AND ${OVER} <= $1::timestamptz + interval '${TOLD_DAYS} days', false)`;

/** Files whose time is near, or not any more. $1 now */
const TELL = `UPDATE renders r SET announced_at = CASE WHEN ${NEAR} THEN $1::timestamptz END
FROM clients c WHERE c.id = r.client_id AND r.file IS NOT NULL AND (r.announced_at IS NULL) = ${NEAR}`;
/** $1 now. Both are held: who keeps one longer just now keeps it; who asks for one, or plans its short, waits and finds it gone. */
const LET_GO = `DELETE FROM renders WHERE id IN (
  SELECT r.id FROM renders r JOIN clients c ON c.id = r.client_id JOIN shorts s ON s.id = r.short_id
  WHERE r.file IS NOT NULL AND r.announced_at IS NOT NULL AND c.archived_at IS NULL AND ${GOES_AT} <= $1 AND ${NOT_PLANNED} LIMIT 200 FOR UPDATE OF s, r SKIP LOCKED)
RETURNING file, short_id AS "shortId", client_id AS "clientId"`;
/** $1 clients, or null for all; $2 how many */
const GOING = `SELECT r.id, r.short_id AS "shortId", r.client_id AS "clientId", r.shape, r.bytes, ${GOES_AT} AS "goesAt",
  coalesce(nullif((SELECT w.title FROM copies w WHERE w.short_id = r.short_id AND w.channel_id IS NULL), ''), k.first_line) AS title
FROM renders r JOIN clients c ON c.id = r.client_id AND c.archived_at IS NULL JOIN shorts s ON s.id = r.short_id JOIN candidates k ON k.id = s.candidate_id
WHERE ($1::uuid[] IS NULL OR r.client_id = ANY ($1)) AND r.file IS NOT NULL AND r.announced_at IS NOT NULL AND c.files_kept_days IS NOT NULL AND ${NOT_PLANNED}
ORDER BY "goesAt", r.id LIMIT $2`;

/** Finished files live as long as their client says; before one goes, it is told of. */
@Injectable()
export class KeptFiles implements OnModuleInit, OnModuleDestroy {
  private readonly rounds = new Rounds('files whose time is over', LOOK_EVERY_MS, () => this.look());

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MediaStore) private readonly media: MediaStore,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  async onModuleInit(): Promise<void> {
    await this.rounds.begin();
  }

  onModuleDestroy(): void {
    this.rounds.end();
  }

  /** Tells of files whose time is near, and lets those go that were told of. Rows first: a file that is left over is swept as nobody's. */
  async look(now = new Date()): Promise<number> {
    const gone = await this.database.transaction(async () => {
      await this.database.run(TELL, [now]);
      const rows = await this.database.run<{ file: string; shortId: string; clientId: string }>(LET_GO, [now]);
      for (const { shortId, clientId } of rows) await this.audit.record({ userId: null, clientId, action: 'let-go', subject: 'short', subjectId: shortId });
      return rows;
    });
    for (const { file } of gone) await this.media.remove(file, 'renders');
    return gone.length;
  }

  async going(actor: Actor): Promise<GoingFileView[]> {
    const rows = await this.database.rows<Omit<GoingFileView, 'goesAt' | 'bytes'> & { goesAt: Date; bytes: string }>(GOING, [seenClients(actor), MOST_SHOWN]);
    return rows.map(({ goesAt, bytes, ...row }) => ({ ...row, goesAt: goesAt.toISOString(), bytes: Number(bytes) }));
  }

  /** Its time begins anew. @throws NotFoundException when it is gone */
  async keepLonger(actor: Actor, renderId: string): Promise<void> {
    await this.database.transaction(async () => {
      const row = found(await Render.findOne({ where: { id: renderId, ...scoped(actor) }, lock: true }), 'file');
      if (row.file === null) throw new ConflictException('The file is not made yet.');
      await row.update({ keptFrom: new Date(), announcedAt: null });
      await this.audit.record({ userId: actor.userId, clientId: row.clientId, action: 'keep-longer', subject: 'short', subjectId: row.shortId });
    });
  }
}
