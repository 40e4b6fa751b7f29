import { OPEN_VOICE } from '@sift-reel/core';
import { type ReactNode, useState } from 'react';
import { api, type ClientView } from '../../app/api.js';
import { ownVersion } from '../../app/own-versions.js';
import { didSomething, sayTrouble } from '../../app/undo.js';
import { Button } from '../../ui/parts.js';
import { CHOICES, VoiceDialog } from './voice-dialog.js';
import { t } from '../../texts/texts.js';

/** What the client's voice asks for, in a few lines, and the way to change it. */
export function VoiceSummary({ client }: { client: ClientView }): ReactNode {
  const [editing, setEditing] = useState(false);
  const { voice } = client;
  const choices = (Object.keys(CHOICES) as (keyof typeof CHOICES)[])
    .filter((name) => voice[name] !== OPEN_VOICE[name])
    .map((name) => [CHOICES[name].label, CHOICES[name].options.find(({ value }) => value === voice[name])!.name]);
  const rows: (readonly [string, string])[] = [
    [t('clients.say'), voice.use.map(({ say, not }) => t('clients.not', { say, not })).join('; ')],
    [t('clients.never'), voice.avoid.join(', ')],
    ...choices.map(([label, name]) => [label!, name!] as const),
    [
      t('clients.lengths'),
      [
        voice.longestTitle === null ? '' : t('clients.titles-to', { longestTitle: voice.longestTitle }),
        voice.longestText === null ? '' : t('clients.texts-to', { longestText: voice.longestText }),
      ]
        .filter(Boolean)
        .join(', '),
    ],
    [t('clients.under-every-text'), voice.fixedParts.join(' · ')],
    [t('clients.good-titles'), voice.examples.map((one) => `“${one}”`).join(', ')],
    [t('clients.hashtags-always'), voice.alwaysTags.map((tag) => `#${tag}`).join(' ')],
    [t('clients.hashtags-never'), voice.neverTags.map((tag) => `#${tag}`).join(' ')],
  ];
  const said = rows.filter(([, text]) => text !== '');
  return (
    <section aria-label={t('clients.voice')} className="h-min border border-rule bg-sheet p-4">
      <div className="flex items-baseline gap-3">
        <h2>{t('clients.voice')}</h2>
        <Button className="ml-auto" onClick={() => setEditing(true)}>
          {t('clients.change-the-voice')}
        </Button>
      </div>
      {said.length === 0 ? (
        <p className="mt-1 text-[12px] text-soft">{t('clients.words-to-use-and-to-avoid')}</p>
      ) : (
        <dl className="mt-2 grid grid-cols-[130px_1fr] gap-x-3 gap-y-1 text-[12px]">
          {said.map(([name, text]) => (
            <div key={name} className="contents">
              <dt className="text-soft">{name}</dt>
              <dd className="min-w-0 break-words">{text}</dd>
            </div>
          ))}
        </dl>
      )}
      <WritingAllowed client={client} />
      {editing && <VoiceDialog client={client} onClose={() => setEditing(false)} />}
    </section>
  );
}

/** Whether the writing service may be asked: shown where there is one, off until somebody says yes. */
function WritingAllowed({ client }: { client: ClientView }): ReactNode {
  const service = api.useReadWritingServiceQuery().data;
  const [allow, { isLoading }] = api.useAllowWritingMutation();
  const [wanted, setWanted] = useState<boolean | null>(null); // shows at once
  if (service?.configured !== true) return null;
  const version = { now: client.version };
  const write = async (allowed: boolean): Promise<void> => {
    const saved = await allow({ clientId: client.id, writingAllowedForm: { allowed, version: ownVersion(client.id, version.now) } }).unwrap();
    version.now = saved.version;
  };
  const change = (allowed: boolean): void => {
    setWanted(allowed);
    write(allowed)
      .then(
        () =>
          didSomething(
            allowed
              ? t('clients.allowed-the-writing-service-for', { name: client.name })
              : t('clients.the-writing-service-is-not-asked', { name: client.name }),
            () => write(!allowed),
            () => write(allowed),
          ),
        sayTrouble,
      )
      .finally(() => setWanted(null));
  };
  return (
    <label className="mt-3 flex items-baseline gap-2 border-t border-rule pt-3 text-[12px]">
      <input
        type="checkbox"
        className="accent-ink"
        checked={wanted ?? client.writingService}
        disabled={isLoading}
        onChange={(event) => change(event.target.checked)}
      />
      <span>
        {t('clients.the-writing-service-may-be-asked')}
        <span className="block text-soft">{t('clients.passages-the-voice-and-the-limits')}</span>
      </span>
    </label>
  );
}
