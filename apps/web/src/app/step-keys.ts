import { t } from '../texts/texts.js';
import { type KeyBinding, useKeys } from './keys.js';
import type { Player } from './player.js';
import { changeSpeed } from './speed.js';

/** Where words and sentences begin, in ms of the recording, in order. */
export interface Beginnings {
  readonly words: readonly number[];
  readonly sentences: readonly number[];
}

const LEAP_MS = 5_000;
/** Who steps back while it plays means the beginning before the one that was just passed. */
const JUST_PASSED_MS = 600;
const JUST_THERE_MS = 30;

/** Where a step from `ms` leads. Exported for its test. */
export function stepFrom(starts: readonly number[], ms: number, by: 1 | -1, playing: boolean): number | null {
  if (by === 1) return starts.find((one) => one > ms + JUST_THERE_MS) ?? null;
  return starts.findLast((one) => one < ms - (playing ? JUST_PASSED_MS : JUST_THERE_MS)) ?? starts[0] ?? null;
}

/** Keys by which one moves through what is said: five seconds, a sentence, a word; and faster or slower. */
export function useStepKeys(player: Player, { words, sentences }: Beginnings, goTo: (ms: number) => void): void {
  const group = t('sifting.listening');
  const leap = (by: number) => (): void => goTo(Math.max(0, player.time.get() + by));
  const step = (starts: readonly number[], by: 1 | -1) => (): void => {
    const ms = stepFrom(starts, player.time.get(), by, player.playing);
    if (ms !== null) goTo(ms);
  };
  const keys: KeyBinding[] = [
    { key: 'ArrowLeft', label: t('app.five-seconds-back'), group, run: leap(-LEAP_MS) },
    { key: 'ArrowRight', label: t('app.five-seconds-on'), group, run: leap(LEAP_MS) },
    { key: ',', label: t('app.sentence-back'), group, run: step(sentences, -1) },
    { key: '.', label: t('app.sentence-on'), group, run: step(sentences, 1) },
    { key: 'mod+ArrowLeft', label: t('app.word-back'), group, run: step(words, -1) },
    { key: 'mod+ArrowRight', label: t('app.word-on'), group, run: step(words, 1) },
    { key: '<', label: t('app.slower'), group, run: () => changeSpeed(-1) },
    { key: '>', label: t('app.faster'), group, run: () => changeSpeed(1) },
  ];
  useKeys(keys);
}
