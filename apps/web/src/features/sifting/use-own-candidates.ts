import { api, type CandidateView } from '../../app/api.js';
import { noticed } from '../../app/notices.js';
import { store } from '../../app/store.js';
import { didSomething, doNow, sayTrouble } from '../../app/undo.js';
import type { DraftSpan } from './transcript-pane.js';
import { t } from '../../texts/texts.js';

interface OwnCandidates {
  readonly making: boolean;
  /** Of exactly those words. */
  make(span: DraftSpan): void;
  /** Of the best passage that holds them. */
  makeAround(span: DraftSpan): void;
  remove(candidate: CandidateView): void;
}

/** Makes candidates of words that somebody found or selected, and takes them away again; both can be undone. */
export function useOwnCandidates(siftId: string, candidates: readonly CandidateView[], onMade: (candidateId: string) => void): OwnCandidates {
  const [add, adding] = api.useAddCandidateMutation();
  const [takeAway] = api.useRemoveCandidateMutation();
  const write = (span: DraftSpan, around: boolean) => add({ siftId, ownCandidateForm: { firstWord: span.firstWord, endWord: span.endWord, around } }).unwrap();
  const make = (span: DraftSpan, around: boolean): void => {
    write(span, around).then((made) => {
      onMade(made.id);
      // What is in the ranking already is not made again, and so not taken away by undo.
      if (candidates.some((one) => one.id === made.id))
        store.dispatch(noticed({ kind: 'done', text: t('sifting.these-words-are-in-already', { title: made.title }), deedId: null }));
      else {
        let { id } = made;
        didSomething(
          around ? t('sifting.made-a-candidate-around-those-words') : t('sifting.made-a-candidate-of-those-words'),
          () => takeAway(id).unwrap(),
          async () => {
            id = (await write(span, around)).id;
            onMade(id);
          },
        );
      }
    }, sayTrouble);
  };
  return {
    making: adding.isLoading,
    make: (span) => make(span, false),
    makeAround: (span) => make(span, true),
    remove: (candidate) => {
      void doNow(
        t('sifting.took-away', { title: candidate.title }),
        () => takeAway(candidate.id).unwrap(),
        async () => onMade((await write(candidate, false)).id),
      );
    },
  };
}
