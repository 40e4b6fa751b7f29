import type { Edit } from '@sift-reel/core';
import { useRef, useState } from 'react';
import { api, type EditFields, type ShortView } from '../../app/api.js';
import { useAppDispatch } from '../../app/store.js';
import { doNow } from '../../app/undo.js';
import { t } from '../../texts/texts.js';
import { saverOf } from '../shorts/copy-saver.js';

export interface Editing {
  /** As it shows: what is on its way to the server, or what the server has. */
  readonly edit: Edit;
  /** True while something is on its way. */
  readonly saving: boolean;
  /** Shows at once, is saved at once, and can be taken back. */
  change(label: string, next: Edit): void;
  moveEnds(firstWord: number, endWord: number): void;
}

/** The edit of a short. Writes go one after the other, each with the version that the one before it made, as those of its words do. */
export function useEdit(short: ShortView): Editing {
  const [saveEdit] = api.useSaveEditMutation();
  const [setSpan] = api.useSetCandidateSpanMutation();
  const dispatch = useAppDispatch();
  const [pending, setPending] = useState<Edit | null>(null);
  const latest = useRef<Edit | null>(null);
  const edit = pending ?? short.edit;
  const { id: shortId, candidateId, firstWord, endWord } = short;

  const put = async (next: Edit): Promise<void> => {
    latest.current = next;
    setPending(next);
    try {
      await saverOf(short).andThen((version) => saveEdit({ shortId, editForm: { edit: next as EditFields, version } }).unwrap());
    } catch (error) {
      dispatch(api.util.invalidateTags([{ type: 'Short', id: shortId }])); // what the server has shows instead
      throw error;
    } finally {
      if (latest.current === next) setPending(null);
    }
  };
  const move = (first: number, end: number): Promise<unknown> => setSpan({ candidateId, wordSpanForm: { firstWord: first, endWord: end } }).unwrap();
  return {
    edit,
    saving: pending !== null,
    change: (label, next) => {
      const before = edit;
      void doNow(
        label,
        () => put(next),
        () => put(before),
      );
    },
    moveEnds: (first, end) =>
      void doNow(
        t('cutting.moved-its-ends'),
        () => move(first, end),
        () => move(firstWord, endWord),
      ),
  };
}
