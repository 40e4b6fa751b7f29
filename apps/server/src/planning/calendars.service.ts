import { randomBytes } from 'node:crypto';
import { ConflictException, Inject, Injectable, NotFoundException } from '@nestjs/common';
import { addDays, planCalendar, wallTimeAt } from '@sift-reel/core';
import type { CalendarForm } from '@sift-reel/forms';
import type { AuditAction } from '../audit/trail-words.js';
import { AuditService } from '../audit/audit.service.js';
import { Client } from '../clients/clients.models.js';
import { CONFIG, type Config } from '../config/config.module.js';
import { Database } from '../database/database.service.js';
import { type Actor, found, requireClient, scoped } from '../identity/actor.js';
import { hashToken } from '../identity/sessions.service.js';
import { Clock } from '../config/clock.js';
import { Calendar } from './planning.models.js';
import { PlanningService } from './planning.service.js';
import type { CalendarMadeView, CalendarView } from './planning.views.js';

/** So much of what is over stays in a calendar, and so much of what comes is in it. */
const [DAYS_BACK, DAYS_ON] = [31, 366];
const MOST_PER_CLIENT = 20;
/** How often whoever subscribes may ask again, as the calendar itself says (RFC 7986, REFRESH-INTERVAL). */
const REFRESH_S = 30 * 60;
/** When it was last read is written down once in so long. $1 hash of the token */
const READ = `UPDATE calendars SET read_at = now() WHERE token_hash = $1 AND (read_at IS NULL OR read_at < now() - interval '10 minutes')`;

/** A calendar, and what tells it from another state of it. */
interface Published {
  readonly text: string;
  /** RFC 9110, section 8.8.3. */
  readonly etag: string;
}

/** Private addresses of clients' calendars: whoever has one reads the client's posts, until it is withdrawn. */
@Injectable()
export class CalendarsService {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Database) private readonly database: Database,
    @Inject(PlanningService) private readonly planning: PlanningService,
    @Inject(AuditService) private readonly audit: AuditService,
    @Inject(Clock) private readonly clock: Clock,
  ) {}

  async list(actor: Actor, clientId: string): Promise<CalendarView[]> {
    requireClient(actor, clientId);
    return (await Calendar.findAll({ where: { clientId }, order: ['createdAt'] })).map(toCalendarView);
  }

  /** @returns it with its address, which is told once: only a hash of it is kept */
  async create(actor: Actor, clientId: string, { name }: CalendarForm): Promise<CalendarMadeView> {
    requireClient(actor, clientId);
    const token = randomBytes(32).toString('base64url');
    const calendar = await this.database.transaction(async () => {
      await this.database.lock(`calendars:${clientId}`);
      found(await Client.findOne({ where: { id: clientId, archivedAt: null } }), 'client');
      if ((await Calendar.count({ where: { clientId } })) >= MOST_PER_CLIENT)
        throw new ConflictException(`A client has at most ${MOST_PER_CLIENT} calendar addresses. Withdraw one that nobody uses.`);
      const made = await Calendar.create({ clientId, name, tokenHash: hashToken(token), createdBy: actor.userId });
      await this.record(actor, 'create', made);
      return made;
    });
    return { ...toCalendarView(calendar), address: `${this.config.publicUrl}/api/calendar/${token}.ics` };
  }

  /** From then on its address is as one that never was. */
  async withdraw(actor: Actor, calendarId: string): Promise<void> {
    await this.database.transaction(async () => {
      const calendar = found(await Calendar.findOne({ where: { id: calendarId, ...scoped(actor) }, lock: true }), 'calendar');
      await calendar.destroy();
      await this.record(actor, 'delete', calendar);
    });
  }

  /** @throws NotFoundException for an address that is withdrawn, never was, or whose client is archived: in the same words */
  async publish(token: string): Promise<Published> {
    const tokenHash = hashToken(token);
    const calendar = await Calendar.findOne({ where: { tokenHash } });
    const client = calendar === null ? null : await Client.findOne({ where: { id: calendar.clientId, archivedAt: null } });
    if (client === null) throw new NotFoundException('There is no calendar at this address. It may have been withdrawn.');
    const today = wallTimeAt(client.zone, this.clock.nowMs()).date;
    const rows = await this.planning.rows({ clientIds: [client.id] }, addDays(today, -DAYS_BACK), addDays(today, DAYS_ON), client.id);
    await this.database.run(READ, [tokenHash]);
    const etag = `"${hashToken(JSON.stringify([client.name, rows])).slice(0, 32)}"`;
    return { text: planCalendar(rows, client.name, this.clock.nowMs(), REFRESH_S), etag };
  }

  private async record(actor: Actor, action: AuditAction, { id, clientId, name }: Calendar): Promise<void> {
    await this.audit.record({ userId: actor.userId, clientId, action, subject: 'calendar', subjectId: id, detail: { title: name } });
  }
}

const toCalendarView = ({ id, clientId, name, readAt, createdAt }: Calendar): CalendarView => ({
  id,
  clientId,
  name,
  readAt: readAt?.toISOString() ?? null,
  createdAt: createdAt.toISOString(),
});
