import { api, type CandidateView } from '../../app/api.js';
import { doNow } from '../../app/undo.js';
import type { DraftSpan } from './transcript-pane.js';

export interface OwnCandidates {
  readonly making: boolean;
  make(span: DraftSpan): void;
  remove(candidate: CandidateView): void;
}

/** Makes candidates of words that somebody found or selected, and takes them away again; both can be undone. */
export function useOwnCandidates(siftId: string, onMade: (candidateId: string) => void): OwnCandidates {
  const [add, adding] = api.useAddCandidateMutation();
  const [takeAway] = api.useRemoveCandidateMutation();
  const write = (span: DraftSpan) => add({ siftId, wordSpanForm: { firstWord: span.firstWord, endWord: span.endWord } }).unwrap();
  return {
    making: adding.isLoading,
    make: (span) => {
      let made = '';
      void doNow(
        'Made a candidate of those words',
        async () => {
          made = (await write(span)).id;
          onMade(made);
        },
        () => takeAway(made).unwrap(),
      );
    },
    remove: (candidate) => {
      void doNow(
        `Took away “${candidate.title}”`,
        () => takeAway(candidate.id).unwrap(),
        async () => onMade((await write(candidate)).id),
      );
    },
  };
}
