import { Injectable } from '@nestjs/common';
import { AuditEntry } from './audit-entry.model.js';
import type { AuditAction, AuditSubject } from './trail-words.js';

interface AuditFact {
  readonly userId: string | null;
  readonly clientId: string | null;
  /** A verb, such as `keep` or `approve`. */
  readonly action: AuditAction;
  readonly subject: AuditSubject;
  readonly subjectId: string;
  readonly detail?: object;
}

/** The trail of who did what. Written in the transaction of the deed, so that neither stands without the other. */
@Injectable()
export class AuditService {
  async record(fact: AuditFact): Promise<void> {
    await AuditEntry.create({ ...fact, detail: fact.detail ?? {} });
  }
}
