import { characters, formatTimecode, languageOf } from '@sift-reel/core';
import clsx from 'clsx';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { api, type ShortView, type TranslationUnitView, type TranslationView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { inputClass } from '../../ui/fields.js';
import { LANGUAGES } from '../../ui/languages.js';
import { Button, Loading } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { staleCurrent } from '../../ui/stale.js';
import { t } from '../../texts/texts.js';

/** A short in other languages: what its channels want, and what there is. */
export function Translations({ short, onClose }: { short: ShortView; onClose: () => void }): ReactNode {
  const list = api.useListTranslationsQuery(short.id);
  const wanted = short.channels.flatMap(({ language }) => language ?? []);
  const known = [...new Set([...wanted, ...(list.data ?? []).map(({ language }) => language)])];
  const [chosen, setChosen] = useState<string | null>(null);
  const language = chosen ?? known[0] ?? 'es';
  const options = [...new Set([...known, ...LANGUAGES.map(({ code }) => code)])].map((code) => ({
    value: code,
    name: `${languageOf(code).name}${stateOf(code, list.data ?? [], wanted)}`,
  }));
  return (
    <Dialog open onClose={onClose} title={t('shorts.in-other-languages', { title: short.copy.title })} wide>
      <div className="grid gap-3">
        <Select look="field" label={t('common.language')} value={language} options={options} onChange={setChosen} className="max-w-[360px]" />
        {list.data === undefined ? (
          <Loading what={t('shorts.the-translations')} rows={4} />
        ) : (
          <OneLanguage key={language} shortId={short.id} language={language} />
        )}
      </div>
      <DialogFoot>
        <Button onClick={onClose}>{t('common.close')}</Button>
      </DialogFoot>
    </Dialog>
  );
}

function stateOf(code: string, list: readonly TranslationView[], wanted: readonly string[]): string {
  const one = list.find(({ language }) => language === code);
  if (one !== undefined) return one.readBy === null ? t('shorts.draft-2') : t('shorts.read');
  return wanted.includes(code) ? t('shorts.a-channel-waits-for-it') : '';
}

function OneLanguage({ shortId, language }: { shortId: string; language: string }): ReactNode {
  const translation = api.useReadTranslationQuery({ shortId, language });
  if (translation.error !== undefined) return <p className="text-madder-text">{problemText(translation.error)}</p>;
  // What is typed belongs to this language's texts: they are drawn anew when another comes.
  return translation.currentData === undefined ? (
    <Loading what={t('shorts.the-translation')} rows={6} />
  ) : (
    <Texts shortId={shortId} translation={translation.currentData} />
  );
}

function Texts({ shortId, translation }: { shortId: string; translation: TranslationView }): ReactNode {
  const { language, units, version } = translation;
  const [save, saving] = api.useSaveTranslationMutation();
  const [draft, drafting] = api.useDraftTranslationMutation();
  const [setRead, reading] = api.useSetTranslationReadMutation();
  const [bringBack, bringing] = api.useImportXliffMutation();
  const file = useRef<HTMLInputElement>(null);
  const latest = useRef(version);
  const chain = useRef<Promise<unknown>>(Promise.resolve());
  useEffect(() => {
    latest.current = Math.max(latest.current, version);
  }, [version]);
  /** One write after the other, each with the version that the one before it made. */
  const write = (act: (seen: number) => Promise<TranslationView>): void => {
    chain.current = chain.current
      .then(() => act(latest.current))
      .then(
        (after) => (latest.current = after.version),
        (error: unknown) => (latest.current = staleCurrent<TranslationView>(error)?.version ?? latest.current),
      );
  };
  const error = saving.error ?? drafting.error ?? reading.error ?? bringing.error;
  const open = units.filter(({ target }) => target === '').length;
  const doubts = units.reduce((sum, unit) => sum + unit.findings.filter(({ rule }) => rule !== 'missing').length, 0);
  const path = `/api/shorts/${shortId}/translations/${language}`;
  return (
    <>
      <div className="flex flex-wrap items-center gap-2 text-[12px]">
        <span role="status">{sayHow(translation, open, doubts)}</span>
        <span className="ml-auto flex flex-wrap gap-2">
          {translation.draftable && open > 0 && (
            <Button
              disabled={drafting.isLoading}
              onClick={() => write((seen) => draft({ shortId, language, translationSeenForm: { version: seen } }).unwrap())}
            >
              {drafting.isLoading ? t('shorts.drafting') : t('shorts.draft-what-is-open')}
            </Button>
          )}
          <a
            className="inline-flex items-center rounded border border-ink px-[11px] py-[5px] text-xs font-semibold hover:bg-sheet"
            href={`${path}/xliff`}
            download
          >
            {t('shorts.out-as-xliff')}
          </a>
          <Button onClick={() => file.current?.click()}>{t('shorts.bring-xliff-back')}</Button>
          <input
            ref={file}
            type="file"
            aria-label={t('shorts.xliff-file')}
            accept=".xlf,.xliff,application/xliff+xml"
            className="hidden"
            onChange={(event) => {
              const chosen = event.target.files?.[0];
              event.target.value = '';
              if (chosen !== undefined)
                void chosen.text().then((xliff) => write((seen) => bringBack({ shortId, xliffForm: { xliff, version: seen } }).unwrap()));
            }}
          />
        </span>
      </div>
      {error !== undefined && (
        <p role="alert" className="border-l-4 border-madder bg-sheet px-3 py-2">
          {problemText(error)}
        </p>
      )}
      <ol className="max-h-[46vh] divide-y divide-rule overflow-y-auto border-y border-rule">
        {units.map((unit) => (
          <UnitRow
            key={`${unit.id} ${unit.target}`}
            unit={unit}
            language={language}
            onSave={(text) => write((seen) => save({ shortId, language, translationForm: { targets: [{ unit: unit.id, text }], version: seen } }).unwrap())}
          />
        ))}
      </ol>
      <div className="flex flex-wrap items-center gap-4 text-[12px]">
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={translation.readBy !== null}
            disabled={reading.isLoading || (open > 0 && translation.readBy === null)}
            onChange={(event) => {
              const { checked } = event.target;
              write((seen) => setRead({ shortId, language, translationReadForm: { read: checked, version: seen } }).unwrap());
            }}
          />
          {t('shorts.i-have-read-all-of-it')}
        </label>
        {units.every(({ target, time }) => time === null || target !== '') && (
          <span className="ml-auto flex gap-3">
            {t('shorts.captions')}
            <a className="underline" href={`${path}/captions.srt`} download>
              {t('shorts.srt')}
            </a>
            <a className="underline" href={`${path}/captions.vtt`} download>
              {t('shorts.webvtt')}
            </a>
          </span>
        )}
      </div>
    </>
  );
}

function sayHow({ readBy, outdated, draftedBy, units }: TranslationView, open: number, doubts: number): string {
  if (readBy !== null) return t('shorts.read-by', { readBy });
  const parts = [
    open === units.length
      ? t('shorts.nothing-is-translated-yet')
      : open > 0
        ? t('shorts.of-texts-are-open', { open, count: units.length })
        : t('shorts.all-of-it-is-there-and'),
    ...(outdated ? [t('shorts.the-words-of-the-short-have')] : []),
    ...(draftedBy === null ? [] : [t('shorts.parts-are-a-draft-by', { draftedBy })]),
    ...(doubts > 0 ? [t('shorts.to-look-at', { doubts })] : []),
  ];
  return parts.join(' ');
}

/** A text in both languages; it is saved when the field is left. */
function UnitRow({ unit, language, onSave }: { unit: TranslationUnitView; language: string; onSave: (text: string) => void }): ReactNode {
  const [text, setText] = useState(unit.target);
  const sent = useRef(unit.target);
  const flush = useRef(() => undefined as void);
  flush.current = () => {
    if (text.trim() === sent.current.trim()) return;
    sent.current = text;
    onSave(text);
  };
  useEffect(() => () => flush.current(), []); // the dialog was closed over it
  const length = characters(text);
  const { id, name, source, limit, time, changed, findings } = unit;
  return (
    <li className="grid gap-x-4 gap-y-1 py-2 sm:grid-cols-2">
      <div className="min-w-0">
        <span className="text-[11px] text-soft">
          {name} {time !== null && <span className="time">{formatTimecode(time.startMs, 'tenths')}</span>}
        </span>
        <p className="font-serif text-[15px] leading-[1.4] break-words whitespace-pre-line">{source}</p>
        {changed && <p className="text-[12px] text-madder-text">{t('shorts.this-has-changed-since-it-was')}</p>}
      </div>
      <div className="min-w-0">
        <textarea
          aria-label={t('shorts.in', { field: name, language: languageOf(language).name })}
          dir="auto"
          lang={language}
          rows={id === 'description' ? 3 : 1}
          className={clsx(inputClass, 'field-sizing-content resize-y font-serif text-[15px]')}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => flush.current()}
        />
        <span className="flex gap-3 text-[11.5px]">
          <span className="text-madder-text">
            {findings
              .filter(({ rule }) => rule !== 'missing')
              .map(({ detail }) => detail.charAt(0).toUpperCase() + detail.slice(1))
              .join('. ')}
          </span>
          {limit !== null && (
            <span className={clsx('time ml-auto', length > limit ? 'font-semibold text-madder-text' : 'text-soft')}>
              {length}/{limit}
            </span>
          )}
        </span>
      </div>
    </li>
  );
}
