import { Inject, Injectable } from '@nestjs/common';
import type { Copy } from '@sift-reel/core';
import { Channel } from '../clients/clients.models.js';
import { Database } from '../database/database.service.js';
import { User } from '../identity/identity.models.js';
import { toCopyView } from './short-views.js';
import { CopyVersion, type Short } from './shorts.models.js';
import type { CopyVersionView } from './shorts.views.js';

/** Words save by themselves while somebody types: what one person writes into one slot within so long is one version. */
const ONE_SITTING = '5 minutes';
const MOST_SHOWN = 60;

/** Puts the words into the last version of the slot where the same person wrote it just now. @returns a row where it did */
const ADD_TO_SITTING = `
UPDATE copy_versions SET title = $4, description = $5, hashtags = $6, keywords = $7, cover_line = $8, written_at = now()
WHERE id = (
    SELECT id FROM copy_versions WHERE short_id = $1 AND channel_id IS NOT DISTINCT FROM $2 ORDER BY written_at DESC, id LIMIT 1
  )
  AND written_by = $3 AND written_at > now() - interval '${ONE_SITTING}'
RETURNING id`;

const ADD = `
INSERT INTO copy_versions (short_id, channel_id, written_by, title, description, hashtags, keywords, cover_line, client_id, proposed)
VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`;

interface Written {
  readonly short: Pick<Short, 'id' | 'clientId'>;
  readonly channelId: string | null;
  readonly copy: Copy;
  /** Null where the program proposed it. */
  readonly by: string | null;
}

/** Who wrote what, and when. Writing joins the caller's transaction. */
@Injectable()
export class CopyHistory {
  constructor(@Inject(Database) private readonly database: Database) {}

  async add({ short, channelId, copy, by }: Written): Promise<void> {
    const { title, description, hashtags, keywords, coverLine } = copy;
    if (by !== null) {
      const added = await this.database.run(ADD_TO_SITTING, [short.id, channelId, by, title, description, [...hashtags], [...keywords], coverLine]);
      if (added.length > 0) return;
    }
    await this.database.run(ADD, [short.id, channelId, by, title, description, [...hashtags], [...keywords], coverLine, short.clientId, by === null]);
  }

  /** The newest first. */
  async of({ id, clientId }: Short): Promise<CopyVersionView[]> {
    const rows = await CopyVersion.findAll({
      where: { shortId: id, clientId },
      order: [
        ['writtenAt', 'DESC'],
        ['id', 'ASC'],
      ],
      limit: MOST_SHOWN,
    });
    const users = await User.findAll({ attributes: ['id', 'name'], where: { id: rows.flatMap(({ writtenBy }) => writtenBy ?? []) } });
    const channels = await Channel.findAll({ attributes: ['id', 'name'], where: { clientId } });
    const [names, slots] = [new Map(users.map((user) => [user.id, user.name])), new Map(channels.map((channel) => [channel.id, channel.name]))];
    return rows.map((row) => ({
      id: row.id,
      writtenAt: row.writtenAt.toISOString(),
      writtenBy: row.proposed ? null : (names.get(row.writtenBy ?? '') ?? 'a former user'),
      channelId: row.channelId,
      channel: row.channelId === null ? null : (slots.get(row.channelId) ?? null),
      copy: toCopyView(row),
    }));
  }
}
