import { ConflictException, Inject, Injectable, UnprocessableEntityException } from '@nestjs/common';
import type { DocumentContent, DocumentKind, TalkMoment } from '@sift-reel/core';
import { Op } from 'sequelize';
import { Client, voiceOf } from '../clients/clients.models.js';
import { found } from '../identity/actor.js';
import type { Recording } from '../recordings/recordings.models.js';
import { storedTalk } from '../recordings/stored-talk.js';
import { CandidateRow, Sift } from '../sifting/sifting.models.js';
import { CopyRow, Short } from '../shorts/shorts.models.js';
import { TextPool } from '../text/text-pool.service.js';

/** Passages that documents are made of beside what is kept. */
const MOST_CANDIDATES = 40;

/** Makes documents of a recording from what its last sift found and what was kept. */
@Injectable()
export class DocumentMaker {
  constructor(@Inject(TextPool) private readonly text: TextPool) {}

  /** @throws ConflictException before the first sift, UnprocessableEntityException where the recording does not carry one of this kind */
  async make({ id: recordingId, clientId, title }: Pick<Recording, 'id' | 'clientId' | 'title'>, kind: DocumentKind): Promise<DocumentContent> {
    const sift = await Sift.findOne({ where: { recordingId, ridge: { [Op.ne]: null } }, order: [['createdAt', 'DESC']] });
    if (sift === null) throw new ConflictException('Sift the recording first: documents are made of its chapters and its strongest passages.');
    const client = found(await Client.findByPk(clientId), 'client');
    const made = await this.text.makeDocument(clientId, {
      talk: await storedTalk(recordingId),
      kind,
      title,
      chapters: sift.chapters ?? [],
      moments: await momentsOf(recordingId, sift.id),
      language: sift.language,
      voice: voiceOf(client),
    });
    if ('nothing' in made) throw new UnprocessableEntityException(made.nothing);
    return made.content;
  }
}

/** What is kept, with its titles where somebody has approved them, and the best of what is not. */
async function momentsOf(recordingId: string, siftId: string): Promise<TalkMoment[]> {
  const shorts = await Short.findAll({ where: { recordingId }, include: [{ model: CopyRow, where: { channelId: null }, required: false }] });
  const candidates = await CandidateRow.findAll({
    where: { siftId, id: { [Op.notIn]: shorts.map(({ candidateId }) => candidateId) }, state: { [Op.ne]: 'dropped' } },
    order: ['rank'],
    limit: MOST_CANDIDATES,
  });
  return [
    ...shorts.map((short) => ({
      firstWord: short.firstWord,
      endWord: short.endWord,
      score: short.score,
      kept: true,
      title: short.approvedVersion === null ? null : (short.copies[0]?.title ?? null),
    })),
    ...candidates.map(({ firstWord, endWord, score }) => ({ firstWord, endWord, score, kept: false, title: null })),
  ];
}
