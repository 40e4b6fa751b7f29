import { winkTagger, type PosTagger } from '../text/tagger.js';
import { spanMs } from '../time/span.js';
import { buildContext } from './context.js';
import { PART_WEIGHTS } from './fitted.js';
import { chargeParts } from './signals/charge.js';
import { openingParts } from './signals/opening.js';
import type { MeasuredSignal, Part } from './signals/parts.js';
import { standsAloneParts } from './signals/stands-alone.js';
import { substanceParts } from './signals/substance.js';
import { candidateRuns, cutSpan } from './runs.js';
import type { SiftInput } from './types.js';

interface MeasuredPart {
  readonly signal: MeasuredSignal;
  readonly part: string;
}

/** Every run that a sift would score, with the value of each part of the signals: what weights are fitted on. */
interface MeasuredRuns {
  readonly parts: readonly MeasuredPart[];
  readonly spans: readonly { readonly startMs: number; readonly endMs: number }[];
  /** Runs by sentences: `first` inside, `end` not. */
  readonly runs: readonly { readonly first: number; readonly end: number }[];
  /** A row a run, a column a part. */
  readonly values: Float32Array;
}

export function measureRuns(input: SiftInput, tagger: PosTagger = winkTagger): MeasuredRuns {
  const context = buildContext(input, tagger);
  const bySignal: Readonly<Record<MeasuredSignal, readonly Part[]>> = {
    opening: openingParts(context),
    standsAlone: standsAloneParts(context),
    substance: substanceParts(context),
    charge: chargeParts(context),
  };
  const all = (Object.keys(PART_WEIGHTS) as MeasuredSignal[]).flatMap((signal) => bySignal[signal].map((part) => ({ signal, part })));
  const runs = [...candidateRuns(context)].filter((run) => spanMs(cutSpan(context, run)) > 0);
  const values = new Float32Array(runs.length * all.length);
  runs.forEach((run, r) => all.forEach(({ part }, p) => (values[r * all.length + p] = part.value(run))));
  return { parts: all.map(({ signal, part }) => ({ signal, part: part.name })), spans: runs.map((run) => cutSpan(context, run)), runs, values };
}
