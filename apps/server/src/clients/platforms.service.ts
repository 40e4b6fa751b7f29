import { ConflictException, Inject, Injectable } from '@nestjs/common';
import type { PlatformProfileChangeForm, PlatformProfileForm } from '@sift-reel/forms';
import { UniqueConstraintError } from 'sequelize';
import type { AuditAction } from '../audit/trail-words.js';
import { AuditService } from '../audit/audit.service.js';
import { Database } from '../database/database.service.js';
import { claimVersion } from '../database/versions.js';
import { type Actor, requireOwner } from '../identity/actor.js';
import { PlatformProfile } from './clients.models.js';
import type { PlatformProfileView } from './clients.views.js';

/** Platform profiles: everybody's to see, the owner's to keep. */
@Injectable()
export class PlatformsService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AuditService) private readonly audit: AuditService,
  ) {}

  async list(): Promise<PlatformProfileView[]> {
    return (await PlatformProfile.findAll({ order: ['name'] })).map(toPlatformView);
  }

  async create(actor: Actor, form: PlatformProfileForm): Promise<PlatformProfileView> {
    requireOwner(actor);
    return this.write(async () => {
      const row = await PlatformProfile.create({ ...form });
      await this.record(actor, 'create', row);
      return toPlatformView(row);
    });
  }

  async update(actor: Actor, platformProfileId: string, { version, ...fields }: PlatformProfileChangeForm): Promise<PlatformProfileView> {
    requireOwner(actor);
    return this.write(async () => {
      const row = await claimVersion(PlatformProfile, platformProfileId, version, 'platform profile', toPlatformView);
      await row.update(fields);
      await this.record(actor, 'update', row);
      return toPlatformView(row);
    });
  }

  private async record(actor: Actor, action: AuditAction, { id, name }: PlatformProfile): Promise<void> {
    await this.audit.record({ userId: actor.userId, clientId: null, action, subject: 'platform-profile', subjectId: id, detail: { title: name } });
  }

  private async write<T>(act: () => Promise<T>): Promise<T> {
    try {
      return await this.database.transaction(act);
    } catch (error) {
      if (error instanceof UniqueConstraintError) throw new ConflictException('A platform profile of this name exists already.');
      throw error;
    }
  }
}

/** All that is known of a profile is everybody's to see. */
export const toPlatformView = (row: PlatformProfile): PlatformProfileView => row.get({ plain: true });
