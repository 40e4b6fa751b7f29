import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { TYPEFACES } from '@sift-reel/core';
import { CardStyleForm } from '@sift-reel/forms';
import { type ReactNode, useRef } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { api, type CardStyleFields, type ClientView } from '../../app/api.js';
import { ownVersion } from '../../app/own-versions.js';
import { didSomething } from '../../app/undo.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Field, inputClass } from '../../ui/fields.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { differences, StaleChoice, staleCurrent } from '../../ui/stale.js';
import { t } from '../../texts/texts.js';

const TYPEFACE_NAMES = { serif: t('documents.with-serifs'), sans: t('documents.without-serifs'), mono: t('documents.typewriter') } as const;
const LOOKS = { serif: 'font-serif', sans: 'font-sans font-semibold', mono: 'font-mono' } as const;
const COLOURS = [
  ['ground', t('documents.ground')],
  ['ink', t('documents.letters')],
] as const;

/** How a client's quote cards look, on all its recordings. */
export function CardStyleDialog({ client, onClose }: { client: ClientView; onClose: () => void }): ReactNode {
  const [save, saving] = api.useSetCardStyleMutation();
  const seen = useRef(client.version);
  const { control, handleSubmit, formState, getValues, reset, watch } = useForm<CardStyleForm>({
    resolver: classValidatorResolver(CardStyleForm),
    defaultValues: { cardStyle: client.cardStyle, version: client.version },
    mode: 'onChange',
  });
  const errors = formState.errors.cardStyle ?? {};
  const style = watch('cardStyle');
  const write = async (cardStyle: CardStyleFields): Promise<void> => {
    const saved = await save({ clientId: client.id, cardStyleForm: { cardStyle, version: ownVersion(client.id, seen.current) } }).unwrap();
    seen.current = saved.version;
  };
  const submit = handleSubmit(async ({ cardStyle }) => {
    const before = client.cardStyle;
    await write(cardStyle);
    didSomething(
      t('documents.saved-the-quote-cards-of', { name: client.name }),
      () => write(before),
      () => write(cardStyle),
    );
    onClose();
  });
  const theirs = staleCurrent<ClientView>(saving.error);
  return (
    <Dialog open onClose={onClose} title={t('documents.quote-cards-of', { name: client.name })}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
        noValidate
      >
        <div className="grid gap-4 sm:grid-cols-3">
          <Controller
            control={control}
            name="cardStyle.typeface"
            render={({ field }) => (
              <Select
                look="field"
                label={t('documents.type')}
                value={field.value}
                options={TYPEFACES.map((value) => ({ value, name: TYPEFACE_NAMES[value] }))}
                onChange={field.onChange}
              />
            )}
          />
          {COLOURS.map(([name, label]) => (
            <Controller
              key={name}
              control={control}
              name={`cardStyle.${name}`}
              render={({ field }) => (
                <Field label={label} error={errors[name]?.message}>
                  {(ids) => (
                    <span className="flex gap-2">
                      <input
                        type="color"
                        aria-label={t('documents.picked', { label })}
                        className="h-[30px] w-9 flex-none"
                        value={field.value}
                        onChange={field.onChange}
                      />
                      <input {...ids} className={`${inputClass} font-mono`} value={field.value} onChange={field.onChange} />
                    </span>
                  )}
                </Field>
              )}
            />
          ))}
        </div>
        <p className={`px-6 py-5 text-[22px] leading-[1.25] ${LOOKS[style.typeface]}`} style={{ background: style.ground, color: style.ink }}>
          {t('documents.what-was-said-as-it-will')}
        </p>
        {theirs === null ? (
          <FormTrouble error={saving.error} safe={t('documents.nothing-was-saved')} />
        ) : (
          <StaleChoice
            what={t('common.this-client')}
            changed={differences(theirs.cardStyle, getValues('cardStyle'), {
              typeface: t('documents.type'),
              ground: t('documents.ground'),
              ink: t('documents.letters'),
            })}
            onTake={() => {
              seen.current = theirs.version;
              reset({ cardStyle: theirs.cardStyle, version: theirs.version });
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
            {t('documents.save')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
