import { Alignment } from './aligning/aligning.models.js';
import { AuditEntry } from './audit/audit-entry.model.js';
import { Blackout, Channel, Client, InterestRow, PlatformProfile, PostingWindow } from './clients/clients.models.js';
import { Assignment, Invitation, Session, User } from './identity/identity.models.js';
import { Episode, Feed, Fetch } from './feeds/feeds.models.js';
import { Job } from './jobs/job.model.js';
import { Batch, BatchShort, Calendar, Post } from './planning/planning.models.js';
import { Account, PostingStop, Sending, SendingEvent } from './publishing/publishing.models.js';
import { Preparation } from './preparing/preparing.models.js';
import { Recording, TranscriptRow, VoiceTrackRow } from './recordings/recordings.models.js';
import { CopyRow, CopyVersion, Short, Translation } from './shorts/shorts.models.js';
import { DocumentRow, DocumentVersion } from './documents/documents.models.js';
import { Render } from './rendering/rendering.models.js';
import { Writing } from './writing/writing.models.js';
import { BriefRow, CandidateRow, CandidateSignal, EvidenceRow, SentenceVector, Sift } from './sifting/sifting.models.js';

export const MODELS = [
  User,
  Session,
  Invitation,
  Job,
  Assignment,
  Client,
  InterestRow,
  PlatformProfile,
  Channel,
  PostingWindow,
  Blackout,
  Recording,
  TranscriptRow,
  Preparation,
  Alignment,
  Feed,
  Episode,
  Fetch,
  BriefRow,
  Sift,
  CandidateRow,
  CandidateSignal,
  EvidenceRow,
  SentenceVector,
  VoiceTrackRow,
  Short,
  CopyRow,
  CopyVersion,
  Translation,
  DocumentRow,
  DocumentVersion,
  Writing,
  Render,
  Batch,
  BatchShort,
  Post,
  Calendar,
  Account,
  PostingStop,
  Sending,
  SendingEvent,
  AuditEntry,
];
