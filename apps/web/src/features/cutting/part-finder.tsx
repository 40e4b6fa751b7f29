import { type Edit, formatTimecode, type WordRange } from '@sift-reel/core';
import { Play } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { api, type SearchHitView } from '../../app/api.js';
import type { Player } from '../../app/player.js';
import { t } from '../../texts/texts.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Button } from '../../ui/parts.js';
import { SearchField, SearchStatus } from '../../ui/transcript-search.js';

interface PartFinderProps {
  recordingId: string;
  edit: Edit;
  player: Pick<Player, 'playSpan' | 'pause'>;
  onChange: (label: string, next: Edit) => void;
  onClose: () => void;
}

const isOn = (part: WordRange, { firstWord, endWord }: SearchHitView): boolean => part.firstWord === firstWord && part.endWord === endWord;

/** Sentences from anywhere in the recording, found by their words or by what they mean, as parts that are played first or last. */
export function PartFinder({ recordingId, edit, player, onChange, onClose }: PartFinderProps): ReactNode {
  const [query, setQuery] = useState('');
  const found = api.useSearchRecordingQuery({ recordingId, q: query }, { skip: query === '' });
  const hits = query === '' ? [] : (found.currentData?.hits ?? []);
  const put = (place: 'before' | 'after', { firstWord, endWord, text }: SearchHitView): void => {
    const part = { firstWord, endWord };
    if (place === 'before') onChange(t('cutting.put-in-front-what', { what: text }), { ...edit, before: [part, ...edit.before] });
    else onChange(t('cutting.put-after-what', { what: text }), { ...edit, after: [...edit.after, part] });
  };
  const close = (): void => {
    player.pause();
    onClose();
  };
  return (
    <Dialog open wide onClose={close} title={t('cutting.a-part-from-elsewhere')}>
      <SearchField autoFocus label={t('cutting.find-a-part')} placeholder={t('sifting.words-or-what-it-should-mean')} query={query} onQuery={setQuery} />
      <div className="mt-3 max-h-[52vh] min-h-[120px] overflow-y-auto">
        {query === '' ? <p className="text-soft">{t('cutting.what-parts-are')}</p> : <SearchStatus found={found} />}
        <ul>
          {hits.map((hit) => (
            <li key={hit.firstWord} className="flex items-center gap-3 border-b border-faint py-2">
              <button
                type="button"
                aria-label={t('cutting.hear-what', { what: hit.text })}
                title={t('cutting.hear-what', { what: hit.text })}
                className="flex flex-none items-center gap-1 text-madder-text hover:underline"
                onClick={() => player.playSpan(hit.startMs, hit.endMs)}
              >
                <Play size={12} />
                <span className="time">{formatTimecode(hit.startMs)}</span>
              </button>
              <p className="line-clamp-2 min-w-0 flex-1 font-serif text-[15px] leading-[1.35]">{hit.text}</p>
              <Button disabled={edit.before.some((part) => isOn(part, hit))} onClick={() => put('before', hit)}>
                {t('cutting.put-in-front')}
              </Button>
              <Button disabled={edit.after.some((part) => isOn(part, hit))} onClick={() => put('after', hit)}>
                {t('cutting.put-after')}
              </Button>
            </li>
          ))}
        </ul>
      </div>
      <DialogFoot>
        <Button tone="fill" onClick={close}>
          {t('common.close')}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
