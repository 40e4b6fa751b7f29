import { useEffect, useRef, useState } from 'react';
import { api, type CopyView, type FindingView } from '../../app/api.js';

/** Words are checked when the hand rests for so long. */
const CHECK_AFTER_MS = 350;

export interface Check {
  /** Of the words as they were checked; a field that was typed into since then shows none. */
  readonly findings: readonly FindingView[];
  readonly speaksToProgram: boolean;
}

/** A check that goes on by itself, and one that does not wait for the hand to rest. */
export interface RunningCheck extends Check {
  /** What is wrong with these words. */
  readonly ask: (copy: CopyView) => Promise<readonly FindingView[]>;
}

const NOTHING: Check = { findings: [], speaksToProgram: false };

/** What is wrong with words while they are written. @param skip where nothing can be changed */
export function useCheck(shortId: string, copy: CopyView, skip: boolean): RunningCheck {
  const [check] = api.useCheckCopyMutation();
  const [found, setFound] = useState<{ of: CopyView; check: Check } | null>(null);
  const words = JSON.stringify(copy);
  const latest = useRef(words);
  latest.current = words;
  useEffect(() => {
    if (skip) return;
    const timer = setTimeout(() => {
      check({ shortId, checkForm: copy })
        .unwrap()
        .then(
          (answer) => {
            if (latest.current === words) setFound({ of: copy, check: answer });
          },
          () => undefined, // whoever approves is told; nobody is stopped from writing
        );
    }, CHECK_AFTER_MS);
    return () => clearTimeout(timer);
  }, [shortId, words, skip]);
  const ask = async (some: CopyView): Promise<readonly FindingView[]> => (await check({ shortId, checkForm: some }).unwrap()).findings;
  if (found === null || skip) return { ...NOTHING, ask };
  const same = (field: keyof CopyView): boolean => JSON.stringify(found.of[field]) === JSON.stringify(copy[field]);
  return { ask, findings: found.check.findings.filter(({ field }) => same(field)), speaksToProgram: found.check.speaksToProgram };
}
