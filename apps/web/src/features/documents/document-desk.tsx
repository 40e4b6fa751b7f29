import { blockText, type DocumentContent, formatTimecode, type Transcript, type WordRange, wordsText } from '@sift-reel/core';
import { PlayerTrouble } from '../../ui/player-trouble.js';
import { type ReactNode, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, type DocumentView } from '../../app/api.js';
import { useKeys } from '../../app/keys.js';
import { useMedia } from '../../app/media.js';
import { type Player, usePlayer } from '../../app/player.js';
import { problemText } from '../../app/problems.js';
import { useSaver } from '../../app/saver.js';
import { ConfirmDialog } from '../../ui/dialog.js';
import { Button } from '../../ui/parts.js';
import { StaleChoice } from '../../ui/stale.js';
import { DocumentEditor } from './document-editor.js';
import { DocumentHistory } from './document-history.js';
import { type DocumentDraft, documentSaverOf, forgetDocument, textOf } from './document-saver.js';
import { DOCUMENT_NAMES } from './kinds.js';
import { QuoteCards } from './quote-cards.js';
import { TakeAway } from './take-away.js';
import { TalkBeside } from './talk-beside.js';
import { t } from '../../texts/texts.js';
import { formatMoment } from '../../texts/formats.js';

/** One document: its text, and beside it what was said, or its cards. */
export function DocumentDesk({ document: loaded, transcript }: { document: DocumentView; transcript: Transcript }): ReactNode {
  const saver = documentSaverOf(loaded);
  const { draft, current: document } = useSaver(saver, null);
  const content = textOf(saver);
  const media = useMedia(document.recordingId);
  const player = usePlayer(media.source, false, media.of);
  const [said, setSaid] = useState<WordRange | null>(null);
  const [open, setOpen] = useState<'history' | 'again' | 'remove' | null>(null);
  const [beside, setBeside] = useState<'talk' | 'cards'>(document.kind === 'quote-cards' ? 'cards' : 'talk');
  const [makeAgain, making] = api.useMakeDocumentAgainMutation();
  const [remove, removing] = api.useRemoveDocumentMutation();
  const navigate = useNavigate();
  const { name } = DOCUMENT_NAMES[document.kind];
  const play = (): void => {
    if (said === null || !document.sound) return;
    if (player.playing) player.pause();
    else player.playSpan(transcript.words[said.firstWord]!.startMs, transcript.words[said.endWord - 1]!.endMs);
  };
  useKeys([
    { key: 'h', label: t('common.who-wrote-what'), group: t('common.documents'), run: () => setOpen('history') },
    { key: 'Alt p', label: t('documents.hear-what-the-text-at-the'), group: t('common.documents') },
  ]);
  const again = async (): Promise<void> => {
    await saver.andThen((version) => makeAgain({ documentId: document.id, documentSeenForm: { version } }).unwrap()).catch(() => undefined);
    setOpen(null);
  };
  const drop = async (): Promise<void> => {
    await saver.flush(); // what is on its way would make this stale
    const { id, version } = saver.current;
    const done = await remove({ documentId: id, version })
      .unwrap()
      .then(
        () => true,
        () => false,
      );
    setOpen(null);
    if (!done) return;
    forgetDocument(id);
    void navigate(`/recordings/${document.recordingId}/documents`);
  };
  const trouble = making.error ?? removing.error;
  return (
    <div className="flex min-h-0 flex-1 max-md:flex-col">
      <section aria-label={name} className="flex min-h-0 min-w-0 flex-1 flex-col">
        <div className="flex flex-none flex-wrap items-center gap-2 border-b border-rule px-4 py-2">
          <h2 className="text-[15px]">{name}</h2>
          <span className="text-[12px] text-soft" role="status">
            {stateOf(draft, document)}
          </span>
          <span className="ml-auto flex flex-wrap gap-[6px]">
            <Button tone="quiet" onClick={() => setOpen('history')}>
              {t('common.who-wrote-what')}
            </Button>
            <Button tone="quiet" onClick={() => setOpen('again')}>
              {t('documents.make-anew')}
            </Button>
            <Button tone="quiet" onClick={() => setOpen('remove')}>
              {t('common.remove')}
            </Button>
            <TakeAway document={document} content={content} onBefore={() => saver.flush()} />
          </span>
        </div>
        {draft?.state === 'failed' && (
          <p role="alert" className="flex flex-none items-center gap-3 border-b border-rule bg-madder-tint px-4 py-2">
            {draft.trouble} <Button onClick={() => void saver.flush()}>{t('common.save-again')}</Button>
          </p>
        )}
        {draft?.theirs != null && (
          <div className="flex-none border-b border-rule">
            <StaleChoice
              what={t('documents.this-document')}
              changed={[{ name: t('documents.text'), theirs: startOf(draft.theirs.content as unknown as DocumentContent), mine: startOf(draft.value) }]}
              onTake={() => void saver.choose(null, 'theirs')}
              onKeep={() => void saver.choose(null, 'mine')}
            />
          </div>
        )}
        {trouble !== undefined && <p className="flex-none border-b border-rule px-4 py-2 text-madder-text">{problemText(trouble)}</p>}
        <DocumentEditor key={document.id} name={name} content={content} onChange={(now) => saver.change(null, now)} onMoment={setSaid} onPlay={play} />
        <SaidHere {...{ said, transcript, player }} sound={document.sound} onPlay={play} />
      </section>
      <aside className="flex min-h-0 w-[360px] flex-none flex-col border-l border-rule max-md:w-full max-md:flex-1 max-md:border-t max-md:border-l-0">
        <div role="tablist" aria-label={t('documents.beside-the-text')} className="flex flex-none gap-1 border-b border-rule px-3 pt-2">
          {(['talk', 'cards'] as const).map((one) => (
            <button
              key={one}
              type="button"
              role="tab"
              aria-selected={beside === one}
              className={beside === one ? 'border-b-2 border-ink px-2 pb-[6px] text-[12px] font-semibold' : 'px-2 pb-2 text-[12px] text-soft hover:text-ink'}
              onClick={() => setBeside(one)}
            >
              {one === 'talk' ? t('documents.what-was-said') : t('documents.cards')}
            </button>
          ))}
          <PlayerTrouble player={player} media={media} className="ml-auto" />
        </div>
        {beside === 'talk' ? <TalkBeside {...{ transcript, player, said }} sound={document.sound} /> : <QuoteCards document={document} />}
      </aside>
      {open === 'history' && (
        <DocumentHistory
          document={document}
          onTake={(taken) => {
            saver.change(null, taken);
            setOpen(null);
          }}
          onClose={() => setOpen(null)}
        />
      )}
      {open === 'again' && (
        <ConfirmDialog
          title={t('documents.make-name-anew', { name })}
          deed={t('documents.make-anew')}
          keep={t('common.keep-it')}
          busy={making.isLoading}
          onConfirm={() => void again()}
          onClose={() => setOpen(null)}
        >
          {t('documents.it-is-made-from-the-last')}
        </ConfirmDialog>
      )}
      {open === 'remove' && (
        <ConfirmDialog
          title={t('documents.remove-name', { name })}
          deed={t('common.remove')}
          keep={t('common.keep-it')}
          busy={removing.isLoading}
          onConfirm={() => void drop()}
          onClose={() => setOpen(null)}
        >
          {t('documents.it-goes-with-all-that-it')}
        </ConfirmDialog>
      )}
    </div>
  );
}

/** What the text at the caret comes from, with its time and voice. */
function SaidHere({
  said,
  transcript,
  player,
  sound,
  onPlay,
}: {
  said: WordRange | null;
  transcript: Transcript;
  player: Player;
  sound: boolean;
  onPlay: () => void;
}): ReactNode {
  const first = said === null ? undefined : transcript.words[said.firstWord];
  const name = first === undefined ? undefined : transcript.speakers[first.speaker];
  return (
    <p className="flex min-h-[44px] flex-none items-center gap-3 border-t border-rule px-4 py-2 text-[12px] text-soft">
      {said === null || first === undefined ? (
        t('documents.put-the-caret-into-a-sentence')
      ) : (
        <>
          {sound && (
            <Button onClick={onPlay} keyName="Alt P">
              {player.playing ? t('documents.stop') : t('documents.hear-it')}
            </Button>
          )}
          <span className="min-w-0">
            <span className="time">{formatTimecode(first.startMs)}</span> {name !== undefined && <b>{name}</b>}
            <span className="ml-2 line-clamp-1 font-serif text-[14px]">
              “{wordsText(transcript.words, said.firstWord, Math.min(said.endWord, said.firstWord + MOST_WORDS))}”
            </span>
          </span>
        </>
      )}
    </p>
  );
}
const MOST_WORDS = 60;

const startOf = (content: DocumentContent): string => content.content.map(blockText).join(' ').slice(0, 200);

function stateOf(draft: DocumentDraft | null, { writtenBy, writtenAt }: DocumentView): string {
  if (draft?.state === 'typing' || draft?.state === 'saving') return t('common.saving');
  if (draft?.state === 'failed') return t('documents.not-saved');
  if (draft?.state === 'stale') return t('documents.somebody-else-changed-it');
  const when = formatMoment(writtenAt);
  return writtenBy === null ? t('documents.made-from-the-recording', { when }) : t('documents.saved', { writtenBy, when });
}
