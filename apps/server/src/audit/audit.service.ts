import { Injectable } from '@nestjs/common';
import { AuditEntry } from './audit-entry.model.js';

interface AuditFact {
  readonly userId: string | null;
  readonly clientId: string | null;
  /** A verb, such as `keep` or `approve`. */
  readonly action: string;
  readonly subject:
    'user' | 'client' | 'channel' | 'blackout' | 'platform-profile' | 'recording' | 'sift' | 'candidate' | 'short' | 'document' | 'batch' | 'post' | 'session';
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
