import { ADDRESSES, CAPITALS, EMOJI_USES, PERSONS, SERIAL_COMMAS, SPELLINGS } from '@sift-reel/core';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { VoiceForm } from '@sift-reel/forms';
import { type ReactNode, useRef } from 'react';
import { Controller, type FieldErrors, useForm } from 'react-hook-form';
import { api, type ClientView, type VoiceFields } from '../../app/api.js';
import { ownVersion } from '../../app/own-versions.js';
import { didSomething } from '../../app/undo.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { LinesField, ListField, TextField } from '../../ui/fields.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { differences, StaleChoice, staleCurrent } from '../../ui/stale.js';
import { t } from '../../texts/texts.js';

type Choices = 'spelling' | 'capitals' | 'serialComma' | 'person' | 'address' | 'emoji';

/** What each choice is called. */
export const CHOICES: {
  readonly [K in Choices]: { readonly label: string; readonly options: readonly { readonly value: VoiceFields[K]; readonly name: string }[] };
} = {
  spelling: { label: t('clients.spelling'), options: named(SPELLINGS, [t('clients.british-or-american'), t('clients.british'), t('clients.american')]) },
  capitals: {
    label: t('clients.capitals-in-titles'),
    options: named(CAPITALS, [t('clients.as-written'), t('clients.first-word-and-names'), t('clients.every-main-word')]),
  },
  serialComma: {
    label: t('clients.comma-before-the-last-and'),
    options: named(SERIAL_COMMAS, [t('clients.as-written'), t('clients.always'), t('clients.never')]),
  },
  person: { label: t('clients.the-client-speaks-as'), options: named(PERSONS, [t('clients.as-written'), t('clients.we'), t('clients.i')]) },
  address: { label: t('clients.german-viewers-are'), options: named(ADDRESSES, [t('clients.as-written'), 'Sie', 'du']) },
  emoji: { label: t('clients.emoji'), options: named(EMOJI_USES, [t('clients.nowhere'), t('clients.in-texts-only'), t('clients.in-titles-too')]) },
};

function named<V extends string>(values: readonly V[], names: readonly string[]): { value: V; name: string }[] {
  return values.map((value, i) => ({ value, name: names[i]! }));
}

const NAMES: { readonly [K in keyof VoiceFields]: string } = {
  use: t('clients.say-not'),
  avoid: t('clients.never'),
  spelling: t('clients.spelling'),
  capitals: t('clients.capitals'),
  serialComma: t('clients.comma'),
  person: t('clients.speaks-as'),
  address: t('clients.german-viewers'),
  emoji: t('clients.emoji'),
  longestTitle: t('clients.longest-title'),
  longestText: t('clients.longest-text'),
  fixedParts: t('clients.under-every-text'),
  examples: t('clients.good-titles'),
  alwaysTags: t('clients.tags-always'),
  neverTags: t('clients.tags-never'),
};

/** Taken from the text itself, so that what is shown in a language is read in it, too. */
const SAY_NOT = new RegExp(`^${t('clients.not', { say: '(.+?)', not: '(.+)' }).replaceAll(' ', '\\s+')}$`, 'i');
const toLine = ({ say, not }: VoiceFields['use'][number]): string => t('clients.not', { say, not });
/** A line that is not finished is kept as it is, and the form says what it lacks. */
const fromLine = (line: string): VoiceFields['use'][number] => {
  const [, say = line, not = ''] = SAY_NOT.exec(line) ?? [];
  return { say: say.trim(), not: not.trim() };
};

/** How a client's words sound: what is proposed follows it, and what is typed is checked against it. */
export function VoiceDialog({ client, onClose }: { client: ClientView; onClose: () => void }): ReactNode {
  const [save, saving] = api.useSetVoiceMutation();
  const seen = useRef(client.version);
  const { control, handleSubmit, formState, getValues, reset } = useForm<VoiceForm>({
    resolver: classValidatorResolver(VoiceForm),
    defaultValues: { voice: client.voice, version: client.version },
  });
  const errors: FieldErrors<VoiceFields> = formState.errors.voice ?? {};
  const write = async (voice: VoiceFields): Promise<void> => {
    const saved = await save({ clientId: client.id, voiceForm: { voice, version: ownVersion(client.id, seen.current) } }).unwrap();
    seen.current = saved.version;
  };
  const submit = handleSubmit(async ({ voice }) => {
    const before = client.voice;
    await write(voice);
    didSomething(
      t('clients.saved-the-voice-of', { name: client.name }),
      () => write(before),
      () => write(voice),
    );
    onClose();
  });
  const theirs = staleCurrent<ClientView>(saving.error);
  const list = (name: 'avoid' | 'alwaysTags' | 'neverTags', label: string, hint: string): ReactNode => (
    <Controller
      control={control}
      name={`voice.${name}`}
      render={({ field }) => <ListField label={label} value={field.value} onChange={field.onChange} hint={hint} error={errors[name]?.message} />}
    />
  );
  const lines = (name: 'fixedParts' | 'examples', label: string, hint: string): ReactNode => (
    <Controller
      control={control}
      name={`voice.${name}`}
      render={({ field }) => <LinesField label={label} value={field.value} onChange={field.onChange} hint={hint} error={errors[name]?.message} />}
    />
  );
  const length = (name: 'longestTitle' | 'longestText', label: string): ReactNode => (
    <Controller
      control={control}
      name={`voice.${name}`}
      render={({ field }) => (
        <TextField
          label={label}
          inputMode="numeric"
          value={field.value ?? ''}
          placeholder={t('clients.as-the-platform')}
          onChange={(event) => field.onChange(event.target.value.trim() === '' ? null : Number(event.target.value))}
          error={errors[name]?.message}
        />
      )}
    />
  );
  return (
    <Dialog open wide onClose={onClose} title={t('clients.the-voice-of', { name: client.name })}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
        noValidate
      >
        <div className="grid gap-4 sm:grid-cols-2">
          <Controller
            control={control}
            name="voice.use"
            render={({ field }) => (
              <LinesField
                label={t('clients.say-this-not-that')}
                value={field.value.map((one) => (one.not === '' ? one.say : toLine(one)))}
                onChange={(all) => field.onChange(all.map(fromLine))}
                placeholder={t('clients.guests-not-customers')}
                hint={t('clients.one-a-line-what-the-client')}
                error={errors.use === undefined ? undefined : t('clients.each-line-needs-both-guests-not')}
              />
            )}
          />
          <div className="grid content-start gap-4">
            {list('avoid', t('clients.never-say'), t('clients.words-and-phrases-with-commas'))}
            <div className="grid grid-cols-2 gap-4">
              {length('longestTitle', t('clients.longest-title'))}
              {length('longestText', t('clients.longest-description'))}
            </div>
          </div>
        </div>
        <div className="grid gap-4 sm:grid-cols-3">
          {(Object.keys(CHOICES) as Choices[]).map((name) => (
            <Controller
              key={name}
              control={control}
              name={`voice.${name}`}
              render={({ field }) => (
                <Select look="field" label={CHOICES[name].label} value={field.value} options={[...CHOICES[name].options]} onChange={field.onChange} />
              )}
            />
          ))}
        </div>
        <div className="grid gap-4 sm:grid-cols-2">
          {lines('fixedParts', t('clients.under-every-text'), t('clients.link-call-to-action-credits-a'))}
          {lines('examples', t('clients.titles-that-were-good'), t('clients.a-line-each-what-is-proposed'))}
          {list('alwaysTags', t('clients.hashtags-always'), t('clients.on-every-short-without-in-the'))}
          {list('neverTags', t('clients.hashtags-never'), t('clients.never-proposed-and-marked-where-somebody'))}
        </div>
        {theirs === null ? (
          <FormTrouble error={saving.error} />
        ) : (
          <StaleChoice
            what={t('common.this-client')}
            changed={differences<VoiceFields>(theirs.voice, getValues().voice, NAMES)}
            onTake={() => {
              seen.current = theirs.version;
              reset({ voice: theirs.voice, version: theirs.version });
              saving.reset();
            }}
            onKeep={() => {
              seen.current = theirs.version;
              submit().catch(() => undefined);
            }}
          />
        )}
        <DialogFoot>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button tone="fill" type="submit" disabled={saving.isLoading}>
            {t('clients.save-the-voice')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
