import { ADDRESSES, CAPITALS, EMOJI_USES, PERSONS, SERIAL_COMMAS, SPELLINGS } from '@sift-reel/core';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { VoiceForm } from '@sift-reel/forms';
import { type ReactNode, useRef } from 'react';
import { Controller, type FieldErrors, useForm } from 'react-hook-form';
import { api, type ClientView, type VoiceFields } from '../../app/api.js';
import { didSomething } from '../../app/undo.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { LinesField, ListField, TextField } from '../../ui/fields.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { differences, StaleChoice, staleCurrent } from '../../ui/stale.js';

type Choices = 'spelling' | 'capitals' | 'serialComma' | 'person' | 'address' | 'emoji';

/** What each choice is called. */
export const CHOICES: {
  readonly [K in Choices]: { readonly label: string; readonly options: readonly { readonly value: VoiceFields[K]; readonly name: string }[] };
} = {
  spelling: { label: 'Spelling', options: named(SPELLINGS, ['British or American', 'British', 'American']) },
  capitals: { label: 'Capitals in titles', options: named(CAPITALS, ['As written', 'First word and names', 'Every main word']) },
  serialComma: { label: 'Comma before the last “and”', options: named(SERIAL_COMMAS, ['As written', 'Always', 'Never']) },
  person: { label: 'The client speaks as', options: named(PERSONS, ['As written', 'We', 'I']) },
  address: { label: 'German viewers are', options: named(ADDRESSES, ['As written', 'Sie', 'du']) },
  emoji: { label: 'Emoji', options: named(EMOJI_USES, ['Nowhere', 'In texts only', 'In titles, too']) },
};

function named<V extends string>(values: readonly V[], names: readonly string[]): { value: V; name: string }[] {
  return values.map((value, i) => ({ value, name: names[i]! }));
}

const NAMES: { readonly [K in keyof VoiceFields]: string } = {
  use: 'Say, not',
  avoid: 'Never',
  spelling: 'Spelling',
  capitals: 'Capitals',
  serialComma: 'Comma',
  person: 'Speaks as',
  address: 'German viewers',
  emoji: 'Emoji',
  longestTitle: 'Longest title',
  longestText: 'Longest text',
  fixedParts: 'Under every text',
  examples: 'Good titles',
  alwaysTags: 'Tags always',
  neverTags: 'Tags never',
};

const SAY_NOT = /^(.+?),\s*not\s+(.+)$/i;
const toLine = ({ say, not }: VoiceFields['use'][number]): string => `${say}, not ${not}`;
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
    const saved = await save({ clientId: client.id, voiceForm: { voice, version: seen.current } }).unwrap();
    seen.current = saved.version;
  };
  const submit = handleSubmit(async ({ voice }) => {
    const before = client.voice;
    await write(voice);
    didSomething(
      `Saved the voice of “${client.name}”`,
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
          placeholder="as the platform"
          onChange={(event) => field.onChange(event.target.value.trim() === '' ? null : Number(event.target.value))}
          error={errors[name]?.message}
        />
      )}
    />
  );
  return (
    <Dialog open wide onClose={onClose} title={`The voice of ${client.name}`}>
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
                label="Say this, not that"
                value={field.value.map((one) => (one.not === '' ? one.say : toLine(one)))}
                onChange={(all) => field.onChange(all.map(fromLine))}
                placeholder="guests, not customers"
                hint="One a line: what the client says, a comma, “not”, what it stands for"
                error={errors.use === undefined ? undefined : 'each line needs both: guests, not customers'}
              />
            )}
          />
          <div className="grid content-start gap-4">
            {list('avoid', 'Never say', 'Words and phrases, with commas')}
            <div className="grid grid-cols-2 gap-4">
              {length('longestTitle', 'Longest title')}
              {length('longestText', 'Longest description')}
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
          {lines('fixedParts', 'Under every text', 'Link, call to action, credits: a line each, counted into every limit')}
          {lines('examples', 'Titles that were good', 'A line each: what is proposed is put in the order of likeness to them')}
          {list('alwaysTags', 'Hashtags always', 'On every short, without #, in the case you give them')}
          {list('neverTags', 'Hashtags never', 'Never proposed, and marked where somebody types them')}
        </div>
        {theirs === null ? (
          <FormTrouble error={saving.error} />
        ) : (
          <StaleChoice
            what="this client"
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
          <Button onClick={onClose}>Cancel</Button>
          <Button tone="fill" type="submit" disabled={saving.isLoading}>
            Save the voice
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
