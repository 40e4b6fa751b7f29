import type { ReactNode } from 'react';
import { stageName } from '../app/stages.js';
import { timeLeft } from '../texts/formats.js';
import { t } from '../texts/texts.js';
import { ProgressBar } from './parts.js';

interface Work {
  readonly state: string;
  readonly stage: string;
  readonly fraction: number;
  readonly leftMs: number | null;
}

/** How far a job is that waits or is at work: a bar, what is being done, how long the rest takes. */
export function WorkLine({ of, label, says, children }: { of: Work; label: string; says: (stage: string) => string; children?: ReactNode }): ReactNode {
  return (
    <div className="mt-1 flex max-w-[300px] flex-col gap-[2px] text-[11.5px] text-soft">
      <ProgressBar fraction={of.fraction} label={label} />
      <span>
        {says(stageName(of.state === 'waiting' ? 'waiting' : of.stage))}
        {of.leftMs !== null && of.leftMs > 0 && ` · ${t('common.left', { left: timeLeft(of.leftMs) })}`} {children}
      </span>
    </div>
  );
}
