import { createHmac, timingSafeEqual } from 'node:crypto';
import { Inject, Injectable, NotFoundException } from '@nestjs/common';
import { CONFIG, type Config } from '../config/config.module.js';
import { Sending } from './publishing.models.js';

const LIFE_MS = 3_600_000;

/** Addresses at which a platform fetches a file that is being posted: without a sign-in, for an hour, and that file alone. By the time of day. */
@Injectable()
export class HandedFiles {
  constructor(@Inject(CONFIG) private readonly config: Pick<Config, 'sealingKeys' | 'publicUrl'>) {}

  addressOf(postId: string): string {
    const ends = Math.floor((Date.now() + LIFE_MS) / 1_000);
    return `${this.config.publicUrl}/api/handed/${postId}.${ends}.${this.signature(postId, ends)}/video.mp4`;
  }

  /** @throws NotFoundException for an address that is over, or was never given, in the same words */
  async fileOf(token: string): Promise<string> {
    const [postId = '', ends = '', signature = ''] = token.split('.');
    const given = Buffer.from(signature);
    const right = Buffer.from(this.signature(postId, Number(ends)));
    const holds = given.length === right.length && timingSafeEqual(given, right) && Number(ends) * 1_000 > Date.now();
    const sending = holds ? await Sending.findByPk(postId) : null;
    if (sending === null) throw new NotFoundException('There is nothing at this address, or not any more.');
    return sending.file;
  }

  private signature(postId: string, ends: number): string {
    const key = this.config.sealingKeys[0]?.bytes ?? Buffer.alloc(0);
    return createHmac('sha256', key).update(`handed:${postId}:${ends}`).digest('base64url');
  }
}
