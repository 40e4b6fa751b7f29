import { type Finding, isTruth } from '@sift-reel/core';
import type { ReactNode } from 'react';
import type { CopyView, FindingView, TickForm } from '../../app/api.js';
import type { TextMark } from '../../ui/marked-field.js';
import { Button } from '../../ui/parts.js';
import { t } from '../../texts/texts.js';

/** What a tick is for. */
export type Ticked = Pick<FindingView, 'rule' | 'text'>;
export const tickKey = ({ rule, text }: Ticked): string => `${rule} ${text}`;

/** A tick names at most so many characters. */
const LONGEST_TICK = 400;
export const toTick = ({ rule, text }: Ticked): TickForm => ({ rule: rule as TickForm['rule'], text: text.slice(0, LONGEST_TICK) });

/** Ticks that are set on the screen and not yet approved with. */
export interface Ticks {
  readonly has: (finding: Ticked) => boolean;
  readonly toggle: (finding: Ticked) => void;
}

export const marksOf = (findings: readonly FindingView[], field: Finding['field'], ticks: Ticks): TextMark[] =>
  findings
    .filter((one) => one.field === field && !(isTruth(one) && (one.ticked || ticks.has(one))))
    .map((one) => ({ from: one.from, to: one.to, weight: isTruth(one) ? 'grave' : 'slight' }));

/** What is wrong in one field: what can be mended with a button, what was not said with a tick. */
export function Findings({ findings, ticks, onMend }: { findings: readonly FindingView[]; ticks: Ticks; onMend: (finding: FindingView) => void }): ReactNode {
  if (findings.length === 0) return null;
  return (
    <ul className="-mt-2 grid gap-1 text-[12px]">
      {findings.map((finding) => (
        <li key={`${tickKey(finding)} ${finding.item} ${finding.from}`} className="flex items-baseline gap-2">
          <span className={isTruth(finding) ? 'text-madder-text' : 'text-soft'}>{finding.detail}</span>
          {finding.mend !== null && (
            <Button tone="quiet" onClick={() => onMend(finding)}>
              {finding.mend === '' ? t('shorts.take-out', { text: finding.text.trim() }) : t('shorts.write', { mend: finding.mend })}
            </Button>
          )}
          {isTruth(finding) && <Tick finding={finding} ticked={finding.ticked || ticks.has(finding)} onToggle={() => ticks.toggle(finding)} />}
        </li>
      ))}
    </ul>
  );
}

export function Tick({ finding, ticked, onToggle }: { finding: Ticked; ticked: boolean; onToggle: () => void }): ReactNode {
  return (
    <label className="flex flex-none items-center gap-1 whitespace-nowrap">
      <input type="checkbox" className="accent-ink" checked={ticked} onChange={onToggle} aria-label={t('shorts.is-right', { text: finding.text })} />
      {t('shorts.it-is-right')}
    </label>
  );
}

/** The words with one finding mended, or with all that can be. */
export function withMend(copy: CopyView, findings: readonly FindingView[]): CopyView {
  let next = copy;
  for (const finding of [...findings].filter(({ mend }) => mend !== null).sort((a, b) => b.from - a.from || (b.item ?? 0) - (a.item ?? 0)))
    next = mendOne(next, finding);
  return next;
}

function mendOne(copy: CopyView, { field, item, from, to, mend }: FindingView): CopyView {
  const value = copy[field as keyof CopyView];
  if (typeof value === 'string') return { ...copy, [field]: value.slice(0, from) + mend! + value.slice(to) };
  if (item === null) return { ...copy, [field]: [mend!, ...value] };
  return { ...copy, [field]: mend === '' ? value.filter((_, i) => i !== item) : value.map((one, i) => (i === item ? mend! : one)) };
}
