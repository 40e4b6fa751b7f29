import { Inject, Injectable, UnprocessableEntityException } from '@nestjs/common';
import type { BatchChangeForm, BatchForm } from '@sift-reel/forms';
import { Op } from 'sequelize';
import type { AuditAction } from '../audit/trail-words.js';
import { AuditService } from '../audit/audit.service.js';
import { Database } from '../database/database.service.js';
import { claimVersion } from '../database/versions.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { ShortsService } from '../shorts/shorts.service.js';
import { Batch, BatchShort } from './planning.models.js';
import type { BatchView } from './planning.views.js';

/** Members that can go out: kept, and approved as they are. The others come back by themselves when they can again. */
const READY = `SELECT batch_id AS "batchId", short_id AS "shortId", batch_shorts.client_id AS "clientId",
  approved_version IS NOT NULL AND candidates.state = 'kept' AS ready
FROM batch_shorts JOIN shorts ON shorts.id = short_id JOIN candidates ON candidates.id = candidate_id`;

interface Member {
  readonly batchId: string;
  readonly shortId: string;
  readonly clientId: string;
  readonly ready: boolean;
}

/** A batch belongs to the agency; of its shorts each user sees those of their own clients, and changes only those. */
@Injectable()
export class BatchesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ShortsService) private readonly shorts: ShortsService,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  async list(actor: Actor): Promise<BatchView[]> {
    return this.seen(actor, await Batch.findAll({ order: [['createdAt', 'DESC']] }));
  }

  /** @throws NotFoundException when the batch is not there, or none of the actor's business */
  async requireSeen(actor: Actor, batchId: string): Promise<BatchView> {
    return found((await this.seen(actor, await Batch.findAll({ where: { id: batchId } })))[0], 'batch');
  }

  async create(actor: Actor, form: BatchForm): Promise<BatchView> {
    const id = await this.database.transaction(async () => {
      const batch = await Batch.create({ name: form.name, createdBy: actor.userId });
      await this.fill(actor, batch.id, form.shortIds);
      await this.record(actor, 'create', batch);
      return batch.id;
    });
    return this.requireSeen(actor, id);
  }

  async update(actor: Actor, batchId: string, form: BatchChangeForm): Promise<BatchView> {
    await this.requireSeen(actor, batchId);
    await this.database.transaction(async () => {
      const batch = await claimVersion(Batch, batchId, form.version, 'batch', () => this.requireSeen(actor, batchId));
      await batch.update({ name: form.name });
      const known = (await this.membersOf(actor, [batchId])).map((member) => member.shortId);
      await BatchShort.destroy({ where: { batchId, shortId: { [Op.notIn]: [...form.shortIds] }, ...scoped(actor) } });
      await this.fill(
        actor,
        batchId,
        form.shortIds.filter((id) => !known.includes(id)),
      );
      await this.record(actor, 'update', batch);
    });
    return this.requireSeen(actor, batchId);
  }

  /** Takes the batch apart; its shorts and posts stay. */
  async remove(actor: Actor, batchId: string): Promise<void> {
    await this.requireSeen(actor, batchId);
    await this.database.transaction(async () => {
      const batch = found(await Batch.findByPk(batchId, { lock: true }), 'batch');
      await BatchShort.destroy({ where: { batchId, ...scoped(actor) } });
      if ((await BatchShort.count({ where: { batchId } })) === 0) await batch.destroy();
      await this.record(actor, 'delete', batch);
    });
  }

  private async membersOf(actor: Actor, batchIds: readonly string[]): Promise<Member[]> {
    const members = await this.database.rows<Member>(`${READY} WHERE batch_id = ANY ($1::uuid[])`, [batchIds]);
    const { clientId } = scoped(actor);
    return clientId === undefined ? members : members.filter((member) => clientId.includes(member.clientId));
  }

  private async seen(actor: Actor, batches: readonly Batch[]): Promise<BatchView[]> {
    const members = await this.membersOf(
      actor,
      batches.map((batch) => batch.id),
    );
    const ofBatch = new Map<string, Member[]>(batches.map((batch) => [batch.id, []]));
    for (const member of members) ofBatch.get(member.batchId)?.push(member);
    return batches
      .filter((batch) => actor.role === 'owner' || batch.createdBy === actor.userId || ofBatch.get(batch.id)!.length > 0)
      .map(({ id, name, createdAt, version }) => {
        const shortIds = ofBatch.get(id)!.flatMap((member) => (member.ready ? member.shortId : []));
        return { id, name, shortIds, createdAt: createdAt.toISOString(), version };
      });
  }

  private async fill(actor: Actor, batchId: string, shortIds: readonly string[]): Promise<void> {
    const ids = [...new Set(shortIds)];
    const known = new Map((await this.shorts.list(actor, { ids })).map((short) => [short.id, short]));
    const rows = ids.map((shortId) => {
      const short = found(known.get(shortId), 'short');
      if (!short.approved) throw new UnprocessableEntityException(`“${short.copy.title}” is not approved. A batch takes approved shorts only.`);
      return { batchId, shortId, clientId: short.clientId };
    });
    await BatchShort.bulkCreate(rows);
  }

  private async record(actor: Actor, action: AuditAction, { id, name }: Batch): Promise<void> {
    await this.audit.record({ userId: actor.userId, clientId: null, action, subject: 'batch', subjectId: id, detail: { title: name } });
  }
}
