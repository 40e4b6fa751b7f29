import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { CONFIG, type Config } from '../config/config.module.js';

const [IV_BYTES, TAG_BYTES] = [12, 16];

/** What was sealed cannot be opened: its key is not among those that are configured, or it was changed, or is another row's. */
export class SealBrokenError extends Error {
  override readonly name = 'SealBrokenError';
}

/**
 * Seals secrets for keeping: AES-256-GCM (NIST SP 800-38D) with a nonce of its own each time. Where it is kept goes in as well, so that
 * what is sealed for one row opens in no other. As bytes: length of the key's name, the name, nonce, tag, the sealed text.
 */
@Injectable()
export class Sealing {
  constructor(@Inject(CONFIG) private readonly config: Pick<Config, 'sealingKeys'>) {}

  get isReady(): boolean {
    return this.config.sealingKeys.length > 0;
  }

  /** @param place such as `access:` and a row's id */
  seal(text: string, place: string): Buffer {
    const key = this.config.sealingKeys[0];
    if (key === undefined) throw new SealBrokenError('no key is configured to seal with: SIFT_REEL_SEALING_KEYS');
    const nonce = randomBytes(IV_BYTES);
    const cipher = createCipheriv('aes-256-gcm', key.bytes, nonce).setAAD(Buffer.from(place));
    const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
    const name = Buffer.from(key.name);
    return Buffer.concat([Buffer.from([name.length]), name, nonce, cipher.getAuthTag(), sealed]);
  }

  /** @throws SealBrokenError */
  open(sealed: Buffer, place: string): string {
    const from = 1 + (sealed[0] ?? 0);
    const name = this.keyName(sealed);
    const key = this.config.sealingKeys.find((one) => one.name === name);
    if (key === undefined) throw new SealBrokenError(`it was sealed with the key “${name}”, which is not configured`);
    try {
      const nonce = sealed.subarray(from, from + IV_BYTES);
      const decipher = createDecipheriv('aes-256-gcm', key.bytes, nonce, { authTagLength: TAG_BYTES }).setAAD(Buffer.from(place));
      decipher.setAuthTag(sealed.subarray(from + IV_BYTES, from + IV_BYTES + TAG_BYTES));
      return Buffer.concat([decipher.update(sealed.subarray(from + IV_BYTES + TAG_BYTES)), decipher.final()]).toString('utf8');
    } catch {
      throw new SealBrokenError('it was changed since it was sealed, or belongs elsewhere');
    }
  }

  /** Whether it is sealed with the key that seals now. */
  isFresh(sealed: Buffer): boolean {
    return this.keyName(sealed) === this.config.sealingKeys[0]?.name;
  }

  private keyName(sealed: Buffer): string {
    return sealed.subarray(1, 1 + (sealed[0] ?? 0)).toString('utf8');
  }
}
