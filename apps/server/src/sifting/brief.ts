import type { BriefForm } from '@sift-reel/forms';
import type { BriefRow } from './sifting.models.js';

export function toBriefForm(row: BriefRow): BriefForm {
  const { partStartMs, partEndMs, minMs, maxMs, roughCount, topics, kinds, avoid } = row;
  return { partStartMs, partEndMs: partEndMs ?? null, minMs, maxMs, roughCount, topics, kinds, avoid };
}
