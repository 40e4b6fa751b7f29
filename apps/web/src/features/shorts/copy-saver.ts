import { api, type CopyView, type ShortView } from '../../app/api.js';
import { Saver, Savers } from '../../app/saver.js';
import { store } from '../../app/store.js';
import { t } from '../../texts/texts.js';

/** The words for all channels, or one channel's own, by its id. */
export type Slot = string | null;

const SAVE_AFTER_MS = 700;

/** Saves the words of one short: those for all channels, and a channel's own. */
class CopySaver extends Saver<CopyView, ShortView> {
  constructor(short: ShortView) {
    super(short, {
      afterMs: SAVE_AFTER_MS,
      write: (slot, copy, version) => write(short.id, slot, { ...copy, version }),
      show: (next) => {
        store.dispatch(
          api.util.updateQueryData('listShorts', {}, (shorts) => {
            const at = shorts.findIndex((one) => one.id === next.id);
            if (at >= 0) shorts[at] = next;
          }),
        );
      },
      refusal: t('shorts.its-words-could-not-be-saved'),
    });
  }

  /** The words of a slot as they are now, saved or not. */
  words(slot: Slot): CopyView {
    const { channels, copy } = this.current;
    const channel = channels.find(({ channelId }) => channelId === slot);
    return this.draft(slot)?.value ?? channel?.variant ?? channel?.translated ?? copy;
  }
}

const write = (shortId: string, slot: Slot, copyForm: CopyView & { version: number }): Promise<ShortView> =>
  store
    .dispatch(
      slot === null ? api.endpoints.saveCopy.initiate({ shortId, copyForm }) : api.endpoints.saveVariant.initiate({ shortId, channelId: slot, copyForm }),
    )
    .unwrap();

/** The same in every field. */
export const sameWords = (a: CopyView, b: CopyView): boolean => JSON.stringify(takenBack(a, a, a)) === JSON.stringify(takenBack(b, b, b));

/** A change taken back: what was typed over it since then stays. */
export function takenBack(now: CopyView, before: CopyView, after: CopyView): CopyView {
  const back = <K extends keyof CopyView>(field: K): CopyView[K] => (JSON.stringify(now[field]) === JSON.stringify(after[field]) ? before[field] : now[field]);
  return { title: back('title'), description: back('description'), hashtags: back('hashtags'), keywords: back('keywords'), coverLine: back('coverLine') };
}

const savers = new Savers((short: ShortView) => new CopySaver(short));
export const saverOf = (short: ShortView): CopySaver => savers.of(short);
