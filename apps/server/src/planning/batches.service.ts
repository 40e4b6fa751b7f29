import { Inject, Injectable, UnprocessableEntityException } from '@nestjs/common';
import { InjectConnection } from '@nestjs/sequelize';
import type { BatchForm } from '@sift-reel/forms';
import type { Transaction } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { AuditService } from '../audit/audit.service.js';
import { type Actor, found, scoped } from '../identity/actor.js';
import { ShortsService } from '../shorts/shorts.service.js';
import { Batch, BatchShort } from './planning.models.js';
import type { BatchView } from './planning.views.js';

/** A batch belongs to the agency; of its shorts each user sees those of their own clients, and changes only those. */
@Injectable()
export class BatchesService {
  constructor(
    @InjectConnection() private readonly sequelize: Sequelize,
    @Inject(ShortsService) private readonly shorts: ShortsService,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  async list(actor: Actor): Promise<BatchView[]> {
    const [batches, members] = await Promise.all([Batch.findAll({ order: [['createdAt', 'DESC']] }), BatchShort.findAll({ where: scoped(actor) })]);
    const shortsOf = (id: string): string[] => members.filter((row) => row.batchId === id).map((row) => row.shortId);
    return batches
      .filter((batch) => actor.clientIds === 'all' || batch.createdBy === actor.userId || shortsOf(batch.id).length > 0)
      .map((batch) => toView(batch, shortsOf(batch.id)));
  }

  async create(actor: Actor, form: BatchForm): Promise<BatchView> {
    return this.sequelize.transaction(async (transaction) => {
      const batch = await Batch.create({ name: form.name, createdBy: actor.userId }, { transaction });
      await this.fill(actor, batch.id, form.shortIds, transaction);
      await this.audit.record(
        { userId: actor.userId, clientId: null, action: 'create', subject: 'batch', subjectId: batch.id, detail: { title: form.name } },
        transaction,
      );
      return toView(batch, form.shortIds);
    });
  }

  async update(actor: Actor, batchId: string, form: BatchForm): Promise<BatchView> {
    const seen = found(
      (await this.list(actor)).find((batch) => batch.id === batchId),
      'batch',
    );
    return this.sequelize.transaction(async (transaction) => {
      const batch = found(await Batch.findByPk(seen.id, { transaction }), 'batch');
      await batch.update({ name: form.name }, { transaction });
      await BatchShort.destroy({ where: { batchId, ...scoped(actor) }, transaction });
      await this.fill(actor, batchId, form.shortIds, transaction);
      await this.audit.record(
        { userId: actor.userId, clientId: null, action: 'update', subject: 'batch', subjectId: batchId, detail: { title: form.name } },
        transaction,
      );
      return toView(batch, form.shortIds);
    });
  }

  /** Takes the batch apart; its shorts and posts stay. */
  async remove(actor: Actor, batchId: string): Promise<void> {
    const seen = found(
      (await this.list(actor)).find((batch) => batch.id === batchId),
      'batch',
    );
    await this.sequelize.transaction(async (transaction) => {
      await BatchShort.destroy({ where: { batchId, ...scoped(actor) }, transaction });
      if ((await BatchShort.count({ where: { batchId }, transaction })) === 0) await Batch.destroy({ where: { id: batchId }, transaction });
      await this.audit.record(
        { userId: actor.userId, clientId: null, action: 'delete', subject: 'batch', subjectId: batchId, detail: { title: seen.name } },
        transaction,
      );
    });
  }

  private async fill(actor: Actor, batchId: string, shortIds: readonly string[], transaction: Transaction): Promise<void> {
    const known = new Map((await this.shorts.list(actor)).map((short) => [short.id, short]));
    const rows = [...new Set(shortIds)].map((shortId) => {
      const short = found(known.get(shortId), 'short');
      if (!short.approved) throw new UnprocessableEntityException(`“${short.copy.title}” is not approved. A batch takes approved shorts only.`);
      return { batchId, shortId, clientId: short.clientId };
    });
    await BatchShort.bulkCreate(rows, { transaction });
  }
}

function toView(batch: Batch, shortIds: readonly string[]): BatchView {
  return { id: batch.id, name: batch.name, shortIds: [...shortIds], createdAt: batch.createdAt.toISOString() };
}
