import { buildReel, fileName, formatLength, formatTimecode, type Reel, ReelRefusedError, type Transcript, writeCsv, wordsText } from '@sift-reel/core';
import { type ReactNode, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, type CandidateView } from '../../app/api.js';
import { sayTrouble } from '../../app/undo.js';
import { Select } from '../../ui/select.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Button } from '../../ui/parts.js';
import type { Player } from '../../app/player.js';
import { t } from '../../texts/texts.js';

/** Lengths a highlight reel is asked for in, common practice: 3 to 5 minutes. */
const LENGTHS_MS = [60_000, 90_000, 120_000, 180_000, 240_000, 300_000];
const USUAL_MS = 240_000;
const SHOWN_WORDS = 26;

/** One highlight reel of the ranking's best parts, in the order of the recording, to be listened to and taken away. */
export function ReelDialog({
  siftId,
  title,
  candidates,
  transcript,
  player,
  hasSound,
  onClose,
}: {
  siftId: string;
  title: string;
  candidates: readonly CandidateView[];
  transcript: Transcript;
  player: Player;
  hasSound: boolean;
  onClose: () => void;
}): ReactNode {
  const navigate = useNavigate();
  const [keep, { isLoading: keeping }] = api.useKeepReelMutation();
  const keepAsShort = ({ parts }: Reel): void => {
    const reelForm = { parts: parts.map(({ firstWord, endWord }) => ({ firstWord, endWord })) };
    keep({ siftId, reelForm })
      .unwrap()
      .then((short) => navigate(`/shorts/${short.id}`))
      .catch(sayTrouble);
  };
  const [lengthMs, setLengthMs] = useState(USUAL_MS);
  const wanted = useMemo(() => candidates.filter((one) => one.state !== 'dropped'), [candidates]);
  const made = useMemo(() => tryReel(wanted, lengthMs), [wanted, lengthMs]);
  return (
    <Dialog open wide onClose={onClose} title={t('sifting.highlight-reel')}>
      <div className="flex items-center gap-3">
        <span aria-hidden="true">{t('common.length')}</span>
        <Select
          label={t('common.length')}
          value={String(lengthMs)}
          onChange={(value) => setLengthMs(Number(value))}
          options={LENGTHS_MS.map((ms) => ({ value: String(ms), name: formatLength(ms) }))}
        />
        <span className="text-soft">{t('sifting.the-parts-worth-most-that-add')}</span>
      </div>
      {typeof made === 'string' ? (
        <p role="alert" className="mt-4 text-madder-text">
          {made}
        </p>
      ) : (
        <>
          <p className="mt-4" role="status">
            <b>{formatLength(made.lengthMs)}</b> <span className="text-soft">{t('sifting.in-parts', { count: made.parts.length })}</span>
          </p>
          <ol className="mt-2 max-h-[46vh] overflow-y-auto border-t border-rule">
            {made.parts.map((part) => (
              <li
                key={part.firstWord}
                data-testid="reel-part"
                className="grid grid-cols-[64px_48px_1fr_auto] items-baseline gap-x-3 border-b border-rule py-[6px]"
              >
                <span className="time">{formatTimecode(part.startMs)}</span>
                <span className="time text-soft">{formatLength(part.endMs - part.startMs)}</span>
                <span className="line-clamp-2 font-serif text-[15px] leading-[1.35]">
                  {wordsText(transcript.words, part.firstWord, Math.min(part.endWord, part.firstWord + SHOWN_WORDS))}…
                </span>
                <Button
                  disabled={!hasSound}
                  title={hasSound ? t('sifting.plays-this-part') : t('sifting.this-recording-has-no-sound-yet')}
                  onClick={() => player.playSpan(part.startMs, part.endMs)}
                >
                  {t('sifting.play')}
                </Button>
              </li>
            ))}
          </ol>
        </>
      )}
      <DialogFoot>
        <Button onClick={onClose}>{t('common.close')}</Button>
        {typeof made !== 'string' && (
          <>
            <Button onClick={() => download(title, made, transcript)}>{t('sifting.download-as-csv')}</Button>
            <Button tone="fill" disabled={keeping} onClick={() => keepAsShort(made)}>
              {t('sifting.keep-as-one-short')}
            </Button>
          </>
        )}
      </DialogFoot>
    </Dialog>
  );
}

function tryReel(candidates: readonly CandidateView[], lengthMs: number): Reel | string {
  try {
    return buildReel(candidates, lengthMs);
  } catch (error) {
    if (!(error instanceof ReelRefusedError)) throw error;
    return error.nearestMs === 0
      ? t('sifting.there-are-no-candidates-to-make')
      : t('sifting.no-parts-add-up-to-the', { length: formatLength(lengthMs), nearest: formatLength(error.nearestMs) });
  }
}

function download(title: string, reel: Reel, transcript: Transcript): void {
  const rows = reel.parts.map((part, i) => [
    i + 1,
    formatTimecode(part.startMs, 'tenths'),
    formatTimecode(part.endMs, 'tenths'),
    Math.round((part.endMs - part.startMs) / 100) / 10,
    wordsText(transcript.words, part.firstWord, part.endWord),
  ]);
  const file = new Blob([writeCsv(['part', 'start', 'end', 'seconds', 'words'], rows)], { type: 'text/csv' });
  const link = document.createElement('a');
  link.href = URL.createObjectURL(file);
  link.download = fileName([title, t('sifting.highlight-reel-inline')], 'csv');
  link.click();
  URL.revokeObjectURL(link.href);
}
