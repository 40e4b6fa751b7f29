import { Inject, Injectable } from '@nestjs/common';
import { createTransport, type Transporter } from 'nodemailer';
import { CONFIG, type Config } from '../config/config.module.js';
import { log } from '../config/logger.js';

const PATIENCE_MS = 10_000;

/** Hands mail over to what configuration names. Without it, nothing is sent, and whoever asked is told. */
@Injectable()
export class MailService {
  private readonly transport: Transporter | null;

  constructor(@Inject(CONFIG) private readonly config: Config) {
    this.transport =
      config.mailUrl === null
        ? null
        : createTransport({ url: config.mailUrl, connectionTimeout: PATIENCE_MS, greetingTimeout: PATIENCE_MS, socketTimeout: PATIENCE_MS });
  }

  /** @returns whether the mail was taken */
  async send(to: { name: string; address: string }, subject: string, text: string): Promise<boolean> {
    if (this.transport === null) return false;
    try {
      await this.transport.sendMail({ from: this.config.mailFrom, to, subject, text });
      return true;
    } catch (error) {
      log.warn({ error: error instanceof Error ? error.message : String(error) }, 'a mail was not taken');
      return false;
    }
  }
}
