import { formatLength, formatTimecode } from '@sift-reel/core';
import { type ReactNode, useRef, useState } from 'react';
import { api, type EditListPassageView } from '../../app/api.js';
import { noticed } from '../../app/notices.js';
import { problemText } from '../../app/problems.js';
import { useAppDispatch } from '../../app/store.js';
import { formatNumber } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Button, Loading } from '../../ui/parts.js';

const PROBLEMS: Readonly<Record<NonNullable<EditListPassageView['problem']>, string>> = {
  'beyond-the-end': t('sifting.begins-after-the-end'),
  'nothing-said': t('sifting.plays-nothing-that-is-said'),
  'too-many-parts': t('sifting.has-too-many-parts'),
  'too-long': t('sifting.is-too-long-for-a-short'),
};

interface Chosen {
  readonly name: string;
  readonly text: string;
}

/** Takes over what was cut elsewhere: what an edit list plays is shown first, and what is ticked becomes shorts. */
export function EditListDialog({ siftId, onClose }: { siftId: string; onClose: () => void }): ReactNode {
  const dispatch = useAppDispatch();
  const [read, reading] = api.useReadEditListMutation();
  const [keep, keeping] = api.useKeepPassagesMutation();
  const [file, setFile] = useState<Chosen | null>(null);
  const [asOne, setAsOne] = useState(false);
  const picker = useRef<HTMLInputElement>(null);
  const [turned, setTurned] = useState<ReadonlySet<number>>(new Set());
  const [titles, setTitles] = useState<ReadonlyMap<number, string>>(new Map());
  const look = (chosen: Chosen, one: boolean): void => {
    setFile(chosen);
    setAsOne(one);
    setTurned(new Set());
    setTitles(new Map());
    void read({ siftId, editListForm: { ...chosen, asOne: one } });
  };
  const passages = reading.isError ? [] : (reading.data?.passages ?? []);
  // What is kept already is not kept twice, unless somebody ticks it.
  const takes = (i: number): boolean => passages[i]!.kept === turned.has(i);
  const wanted = passages.flatMap(({ passage, title }, i) =>
    passage === null || !takes(i) ? [] : [{ title: titles.get(i) ?? title, firstWord: passage.firstWord, endWord: passage.endWord, edit: passage.edit }],
  );
  const take = async (): Promise<void> => {
    const made = await keep({ siftId, keepPassagesForm: { passages: wanted } }).unwrap();
    dispatch(noticed({ kind: 'done', text: t('sifting.passages-kept', { count: made.length }), deedId: null }));
    onClose();
  };
  const error = reading.error ?? keeping.error;
  return (
    <Dialog open wide onClose={onClose} title={t('sifting.bring-in-an-edit-list')}>
      <p className="text-soft">{t('sifting.what-edit-lists-are-read')}</p>
      <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <input
          ref={picker}
          type="file"
          className="hidden"
          accept=".edl,.otio,.txt,.json"
          aria-label={t('sifting.edit-list')}
          data-testid="edit-list"
          onChange={({ target }) => {
            const [chosen] = target.files ?? [];
            if (chosen !== undefined) void chosen.text().then((text) => look({ name: chosen.name, text }, asOne));
            target.value = ''; // the same file may be chosen again, changed
          }}
        />
        <Button tone={file === null ? 'fill' : 'plain'} onClick={() => picker.current?.click()}>
          {file === null ? t('sifting.choose-a-file') : t('sifting.choose-another-file')}
        </Button>
        {file !== null && <b>{file.name}</b>}
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-ink"
            checked={asOne}
            onChange={({ target }) => (file === null ? setAsOne(target.checked) : look(file, target.checked))}
          />
          {t('sifting.all-of-it-is-one-short')}
        </label>
      </div>
      {reading.isLoading && <Loading what={t('sifting.edit-list')} />}
      {error !== undefined && (
        <p role="alert" className="mt-4 text-madder-text">
          {problemText(error)}
        </p>
      )}
      {passages.length > 0 && !reading.isLoading && (
        <ol className="mt-4 max-h-[48vh] overflow-y-auto border-t border-rule">
          {passages.map((one, i) => (
            <Passage
              key={`${file?.name ?? ''} ${String(asOne)} ${one.startMs} ${i}`}
              of={one}
              n={i + 1}
              title={titles.get(i) ?? one.title}
              taken={takes(i)}
              onTitle={(title) => setTitles(new Map(titles).set(i, title))}
              onTake={() => setTurned(new Set(turned.has(i) ? [...turned].filter((at) => at !== i) : [...turned, i]))}
            />
          ))}
        </ol>
      )}
      <DialogFoot>
        <Button onClick={onClose}>{t('common.cancel')}</Button>
        <Button tone="fill" disabled={wanted.length === 0 || keeping.isLoading || reading.isLoading} onClick={() => void take().catch(() => undefined)}>
          {t('sifting.keep-as-shorts', { count: wanted.length })}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}

function Passage({
  of: { passage, problem, startMs, endMs, spans, offMs, kept },
  n,
  title,
  taken,
  onTitle,
  onTake,
}: {
  of: EditListPassageView;
  n: number;
  title: string;
  taken: boolean;
  onTitle: (title: string) => void;
  onTake: () => void;
}): ReactNode {
  return (
    <li data-testid="edit-list-passage" className="grid grid-cols-[24px_1fr] items-start md:grid-cols-[24px_132px_1fr] gap-x-3 border-b border-rule py-[8px]">
      <input
        type="checkbox"
        className="mt-1 accent-ink"
        aria-label={t('sifting.take-passage', { number: n })}
        disabled={passage === null}
        checked={passage !== null && taken}
        onChange={onTake}
      />
      <span className="time text-[12px]">
        {formatTimecode(startMs)} – {formatTimecode(endMs)}
        <span className="block text-soft">
          {formatLength(passage?.playedMs ?? endMs - startMs)} · {t('sifting.in-spans', { count: spans })}
        </span>
      </span>
      <span className="min-w-0 max-md:col-start-2">
        {passage === null ? (
          <span className="text-madder-text">{problem !== null && PROBLEMS[problem]}</span>
        ) : (
          <>
            <input
              className="w-full border-b border-rule bg-transparent font-semibold outline-none focus:border-ink"
              aria-label={t('sifting.title-of-passage', { number: n })}
              placeholder={t('sifting.a-title-is-proposed')}
              maxLength={300}
              value={title}
              onChange={(event) => onTitle(event.target.value)}
            />
            <span className="line-clamp-2 font-serif text-[15px] leading-[1.35]">{passage.said}…</span>
            <span className="text-[12px] text-soft">
              {kept && `${t('sifting.kept-already')} `}
              {offMs === 0 ? t('sifting.same-frames') : t('sifting.ends-are-off', { seconds: formatNumber(offMs / 1_000, 2) })}
            </span>
          </>
        )}
      </span>
    </li>
  );
}
