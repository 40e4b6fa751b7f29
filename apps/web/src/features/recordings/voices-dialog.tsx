import { formatTimecode, unpackTranscript, type Word } from '@sift-reel/core';
import { type FormEvent, type ReactNode, useMemo, useState } from 'react';
import { api, type RecordingView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { formatNumber } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { TextField } from '../../ui/fields.js';
import { Button, FormTrouble, Loading, Trouble } from '../../ui/parts.js';

/** What somebody says first tells who it is. */
interface Voice {
  /** -1 for what nobody is named for. */
  readonly speaker: number;
  readonly name: string;
  readonly words: number;
  readonly startMs: number;
  readonly begins: string;
}

const SHOWN_WORDS = 14;

/** Who speaks in a recording, to be named, corrected, or joined where two names are one person's. */
export function VoicesDialog({ recording, onClose }: { recording: RecordingView; onClose: () => void }): ReactNode {
  const packed = api.useReadTranscriptQuery(recording.id);
  const voices = useMemo(() => (packed.currentData === undefined ? null : voicesOf(unpackTranscript(packed.currentData))), [packed.currentData]);
  return (
    <Dialog open onClose={onClose} title={t('recordings.voices-of', { title: recording.title })} wide>
      {packed.error !== undefined && <Trouble title={t('recordings.the-voices-cannot-be-shown')} detail={problemText(packed.error)} />}
      {voices === null && packed.error === undefined && <Loading what={t('recordings.voices')} />}
      {voices !== null && <Names recording={recording} voices={voices} onClose={onClose} />}
    </Dialog>
  );
}

function Names({ recording, voices, onClose }: { recording: RecordingView; voices: readonly Voice[]; onClose: () => void }): ReactNode {
  const [given, setGiven] = useState<readonly string[]>(() => voices.map(({ name }) => name));
  const [write, { error, isLoading }] = api.useNameVoicesMutation();
  const known = recording.origin?.persons.map(({ name }) => name) ?? [];
  const names = given.map((name) => name.trim());
  const lacking = names.findIndex((name, i) => name === '' && voices[i]!.speaker >= 0);
  const joined = (i: number): boolean => names[i] !== '' && names.indexOf(names[i]!) !== i;
  const save = (event: FormEvent): void => {
    event.preventDefault();
    if (lacking >= 0) return;
    const named = voices.map(({ speaker }, i) => ({ speaker, name: names[i]! }));
    const unnamed = named.find(({ speaker }) => speaker < 0)?.name ?? '';
    const voiceNamesForm = {
      names: named
        .filter(({ speaker }) => speaker >= 0)
        .sort((a, b) => a.speaker - b.speaker)
        .map(({ name }) => name),
      unnamed: unnamed === '' ? null : unnamed,
      version: recording.version,
    };
    write({ recordingId: recording.id, voiceNamesForm })
      .unwrap()
      .then(onClose)
      .catch(() => undefined);
  };
  return (
    <form onSubmit={save} noValidate>
      <p className="pb-2 text-soft">{t('recordings.two-voices-of-one-name')}</p>
      <ul className="max-h-[52vh] divide-y divide-rule overflow-y-auto border-y border-rule">
        {voices.map(({ speaker, words, startMs, begins }, i) => (
          <li key={speaker} className="grid gap-x-4 gap-y-1 py-2 md:grid-cols-[230px_1fr]">
            <TextField
              label={speaker < 0 ? t('recordings.nobody-is-named') : t('recordings.voice', { number: speaker + 1 })}
              value={given[i]}
              maxLength={120}
              list={known.length > 0 ? 'known-persons' : undefined}
              placeholder={speaker < 0 ? t('recordings.a-name-or-nothing') : ''}
              error={i === lacking ? t('recordings.a-voice-needs-a-name') : undefined}
              hint={joined(i) ? t('recordings.becomes-one-with', { number: names.indexOf(names[i]!) + 1 }) : undefined}
              onChange={(event) => setGiven(given.map((name, k) => (k === i ? event.target.value : name)))}
            />
            <p className="min-w-0 pt-[24px] text-[12px] text-soft">
              {t('recordings.words', { wordCount: formatNumber(words) })} · <span className="time">{formatTimecode(startMs)}</span>{' '}
              <span className="font-serif text-[15px] text-ink">“{begins}”</span>
            </p>
          </li>
        ))}
      </ul>
      <datalist id="known-persons">
        {known.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <FormTrouble error={error} />
      <DialogFoot>
        <Button onClick={onClose}>{t('common.cancel')}</Button>
        <Button tone="fill" type="submit" disabled={isLoading || lacking >= 0}>
          {t('recordings.name-the-voices')}
        </Button>
      </DialogFoot>
    </form>
  );
}

function voicesOf({ words, speakers }: ReturnType<typeof unpackTranscript>): Voice[] {
  const found = new Map<number, { words: number; first: number }>(speakers.map((_, speaker) => [speaker, { words: 0, first: -1 }]));
  for (const [i, { speaker, kind }] of words.entries()) {
    const voice = found.get(speaker) ?? { words: 0, first: -1 };
    if (kind === 'word') voice.words += 1;
    if (voice.first < 0) voice.first = i;
    found.set(speaker, voice);
  }
  return [...found].map(([speaker, { words: count, first }]) => ({
    speaker,
    name: speakers[speaker] ?? '',
    words: count,
    startMs: words[Math.max(0, first)]!.startMs,
    begins: beginning(words.slice(Math.max(0, first), first + SHOWN_WORDS + 1)),
  }));
}

function beginning(words: readonly Pick<Word, 'text'>[]): string {
  const said = words
    .slice(0, SHOWN_WORDS)
    .map(({ text }) => text)
    .join(' ');
  return words.length > SHOWN_WORDS ? `${said.replace(/[.,;:!?…]+$/u, '')}…` : said;
}
