import { Inject, Injectable } from '@nestjs/common';
import { Op } from 'sequelize';
import type { Copy, CopyLimits, WordRange } from '@sift-reel/core';
import { Channel, Client, PlatformProfile, voiceOf } from '../clients/clients.models.js';
import { Recording } from '../recordings/recordings.models.js';
import { storedTalk } from '../recordings/stored-talk.js';
import { Sift } from '../sifting/sifting.models.js';
import { TextPool } from '../text/text-pool.service.js';
import type { OfferedTitle, ProposeCopyTask } from '../text/text-tasks.js';

/** Limits for the words that go to all channels, where a client has none yet. */
const OPEN_LIMITS: CopyLimits = { title: 100, description: 500, hashtags: 8 };

/** Proposes the words that go with a short, inside the limits of one channel or of all of its client. */
@Injectable()
export class ProposalsService {
  constructor(@Inject(TextPool) private readonly text: TextPool) {}

  async propose(clientId: string, recordingId: string, range: WordRange, channelId: string | null = null): Promise<Copy> {
    return this.text.proposeCopy(clientId, await this.requestFor(clientId, recordingId, range, channelId));
  }

  /** A few titles to choose from, best first; none for talk that is not English. */
  async titles(clientId: string, recordingId: string, range: WordRange, channelId: string | null): Promise<OfferedTitle[]> {
    return this.text.offerTitles(clientId, await this.requestFor(clientId, recordingId, range, channelId));
  }

  private async requestFor(clientId: string, recordingId: string, { firstWord, endWord }: WordRange, channelId: string | null): Promise<ProposeCopyTask> {
    const talk = await storedTalk(recordingId);
    const client = await Client.findByPk(clientId);
    const recording = await Recording.findOne({ where: { id: recordingId, clientId }, attributes: ['id', 'title'] });
    const limits = await this.limitsOf(clientId, channelId);
    const { language, subject } = await this.knownOf(recordingId);
    return {
      ...{ talk, firstWord, endWord, limits, language, subject },
      title: recording?.title ?? '',
      clientTags: client?.tags ?? [],
      ...(client === null ? {} : { voice: voiceOf(client) }),
    };
  }

  /** What one channel of a client takes, or what all of them do. */
  async limitsOf(clientId: string, channelId: string | null): Promise<CopyLimits> {
    const channels = await Channel.findAll({ where: { clientId, ...(channelId === null ? {} : { id: channelId }) }, include: [PlatformProfile] });
    const least = (pick: (profile: PlatformProfile) => number, open: number): number =>
      channels.reduce((limit, channel) => Math.min(limit, pick(channel.platformProfile)), open);
    return {
      title: least((p) => p.titleLimit, OPEN_LIMITS.title),
      description: least((p) => p.descriptionLimit, OPEN_LIMITS.description),
      hashtags: least((p) => p.hashtagLimit, OPEN_LIMITS.hashtags),
    };
  }

  /** What the last sift that is done found of a recording; one that waits knows nothing yet. */
  async knownOf(recordingId: string): Promise<Pick<Sift, 'language' | 'subject'>> {
    const done = { recordingId, ridge: { [Op.ne]: null } };
    const sift = await Sift.findOne({ where: done, attributes: ['language', 'subject'], order: [['createdAt', 'DESC']] });
    return sift ?? { language: null, subject: null };
  }
}
