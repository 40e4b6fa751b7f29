import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { formatMinute } from '@sift-reel/core';
import { ChannelForm } from '@sift-reel/forms';
import { X } from 'lucide-react';
import { type ReactNode, useRef, useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { api, type ChannelView, type PlatformProfileView, type WindowForm } from '../../app/api.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { inputClass, TextField } from '../../ui/fields.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { LANGUAGES } from '../../ui/languages.js';
import { Select } from '../../ui/select.js';
import { differences, StaleChoice, staleCurrent } from '../../ui/stale.js';
import { ZoneOptions } from './zones.js';
import { t } from '../../texts/texts.js';
import { weekdayName } from '../../texts/formats.js';

interface ChannelDialogProps {
  clientId: string;
  zone: string;
  channel: ChannelView | null;
  nextOrder: number;
  onClose: () => void;
}

/** Opens when the platform profiles are there: a select without its options would lose the channel's own. */
export function ChannelDialog(props: ChannelDialogProps): ReactNode {
  const platforms = api.useListPlatformProfilesQuery();
  return platforms.data === undefined ? null : <ChannelFields {...props} platforms={platforms.data} />;
}

function ChannelFields({
  clientId,
  zone,
  channel,
  nextOrder,
  onClose,
  platforms,
}: ChannelDialogProps & { platforms: readonly PlatformProfileView[] }): ReactNode {
  const [create, creating] = api.useCreateChannelMutation();
  const [update, updating] = api.useUpdateChannelMutation();
  const error = creating.error ?? updating.error;
  const seen = useRef(channel?.version ?? 1);
  const { register, control, handleSubmit, formState, getValues, reset } = useForm<ChannelForm>({
    resolver: classValidatorResolver(ChannelForm),
    defaultValues:
      channel === null
        ? { name: '', platformProfileId: '', zone, order: nextOrder, postsPerDay: 1, postsPerWeek: 5, windows: [], language: null }
        : toForm(channel),
  });
  const submit = handleSubmit(async (channelForm) => {
    if (channel === null) await create({ clientId, channelForm }).unwrap();
    else await update({ channelId: channel.id, channelChangeForm: { ...channelForm, version: seen.current } }).unwrap();
    onClose();
  });
  const theirs = staleCurrent<ChannelView>(error);
  const wrong = formState.errors;
  return (
    <Dialog open onClose={onClose} title={channel === null ? t('clients.add-a-channel') : channel.name} wide>
      <form
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
        noValidate
      >
        <div className="grid grid-cols-1 gap-4 md:grid-cols-3">
          <TextField label={t('common.name')} autoFocus {...register('name')} error={wrong.name?.message} />
          <Controller
            control={control}
            name="platformProfileId"
            render={({ field }) => (
              <Select
                look="field"
                label={t('clients.platform-profile')}
                value={field.value}
                onChange={field.onChange}
                options={[{ value: '', name: t('clients.choose') }, ...platforms.map((one) => ({ value: one.id, name: one.name }))]}
                error={wrong.platformProfileId === undefined ? undefined : t('clients.must-be-chosen')}
              />
            )}
          />
          <TextField label={t('clients.time-zone')} list="zones" {...register('zone')} error={wrong.zone?.message} />
          <TextField
            label={t('common.order')}
            type="number"
            min={1}
            {...register('order', { valueAsNumber: true })}
            hint={t('clients.1-is-where-a-short-goes')}
            error={wrong.order?.message}
          />
          <TextField
            label={t('clients.posts-a-day-at-most')}
            type="number"
            min={1}
            {...register('postsPerDay', { valueAsNumber: true })}
            error={wrong.postsPerDay?.message}
          />
          <TextField
            label={t('clients.posts-a-week-at-most')}
            type="number"
            min={1}
            {...register('postsPerWeek', { valueAsNumber: true })}
            error={wrong.postsPerWeek?.message}
          />
          <Controller
            control={control}
            name="language"
            render={({ field }) => (
              <Select
                look="field"
                label={t('common.language')}
                value={field.value ?? ''}
                onChange={(code) => field.onChange(code === '' ? null : code)}
                options={[{ value: '', name: t('clients.that-of-the-talk') }, ...LANGUAGES.map(({ code, name }) => ({ value: code, name }))]}
                hint={t('clients.its-posts-wait-for-words-in')}
                error={wrong.language?.message}
              />
            )}
          />
        </div>
        <Controller control={control} name="windows" render={({ field }) => <Windows value={field.value} onChange={field.onChange} />} />
        <ZoneOptions />
        {theirs === null ? (
          <FormTrouble error={error} />
        ) : (
          <StaleChoice
            what={t('clients.this-channel')}
            changed={differences(toForm(theirs), getValues(), CHANNEL_NAMES)}
            onTake={() => {
              seen.current = theirs.version;
              reset(toForm(theirs));
              updating.reset();
            }}
            onKeep={() => {
              seen.current = theirs.version;
              submit().catch(() => undefined);
            }}
          />
        )}
        <DialogFoot>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button tone="fill" type="submit" disabled={creating.isLoading || updating.isLoading}>
            {channel === null ? t('clients.add-the-channel') : t('clients.save-the-channel')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}

const CHANNEL_NAMES = {
  name: t('common.name'),
  zone: t('clients.time-zone'),
  order: t('common.order'),
  postsPerDay: t('clients.posts-a-day'),
  postsPerWeek: t('clients.posts-a-week'),
  windows: t('clients.windows'),
  language: t('common.language'),
} as const;

function toForm({ name, platform, zone, order, postsPerDay, postsPerWeek, windows, language }: ChannelView): ChannelForm {
  return { name, platformProfileId: platform.id, zone, order, postsPerDay, postsPerWeek, windows, language };
}

/** A time of day as a producer writes it: "7:30", "07.30", "19". @returns minutes after midnight, or null */
function minuteOf(text: string): number | null {
  const match = /^([01]?\d|2[0-3])(?:[:.]([0-5]\d))?$/.exec(text.trim());
  return match === null ? null : Number(match[1]) * 60 + Number(match[2] ?? 0);
}

/** Posting windows by weekday: times on the wall of the channel's zone, each with a weight. */
function Windows({ value, onChange }: { value: readonly WindowForm[]; onChange: (windows: WindowForm[]) => void }): ReactNode {
  const [clock, setClock] = useState('07:30');
  const [weight, setWeight] = useState(70);
  const minute = minuteOf(clock);
  const add = (weekday: number): void => {
    if (minute !== null && !value.some((one) => one.weekday === weekday && one.minute === minute))
      onChange([...value, { weekday, minute, weight }].sort((a, b) => a.weekday - b.weekday || a.minute - b.minute));
  };
  return (
    <fieldset className="mt-5">
      <legend className="mb-2 text-xs font-semibold">{t('clients.posting-windows')}</legend>
      <div className="mb-2 flex items-center gap-3 text-[12px]">
        <label className="flex items-center gap-2">
          {t('clients.time')}{' '}
          <input
            className={`${inputClass} !w-[70px] font-mono`}
            value={clock}
            aria-invalid={minute === null}
            onChange={(event) => setClock(event.target.value)}
            onBlur={() => {
              if (minute !== null) setClock(formatMinute(minute));
            }}
          />
        </label>
        <label className="flex items-center gap-2">
          {t('clients.weight')}{' '}
          <input
            type="number"
            min={1}
            max={100}
            className={`${inputClass} !w-[70px]`}
            value={weight}
            onChange={(event) => setWeight(Math.min(100, Math.max(1, Number(event.target.value) || 1)))}
          />
        </label>
        {minute === null ? (
          <span role="alert" className="text-madder-text">
            {t('clients.is-no-time-of-day-write', { clock })}
          </span>
        ) : (
          <span className="text-soft">{t('clients.then-choose-the-weekdays-a-greater')}</span>
        )}
      </div>
      <div className="grid grid-cols-4 gap-[4px] md:grid-cols-7">
        {[1, 2, 3, 4, 5, 6, 7].map((day) => (
          <div key={day} className="min-h-[84px] border border-rule bg-sheet p-1">
            <button
              type="button"
              className="w-full border-b border-rule pb-1 text-left text-[11.5px] font-semibold hover:underline"
              onClick={() => add(day)}
              disabled={minute === null}
              title={t('clients.add-on', { clock, weekday: weekdayName(day) })}
            >
              {weekdayName(day).slice(0, 3)} +
            </button>
            {value
              .filter((one) => one.weekday === day)
              .map((one) => (
                <div key={one.minute} className="time flex items-center justify-between pt-1">
                  <span>
                    {formatMinute(one.minute)} · {one.weight}
                  </span>
                  <button
                    type="button"
                    aria-label={t('clients.remove-on', { minute: formatMinute(one.minute), weekday: weekdayName(day) })}
                    onClick={() => onChange(value.filter((other) => other !== one))}
                  >
                    <X size={11} />
                  </button>
                </div>
              ))}
          </div>
        ))}
      </div>
    </fieldset>
  );
}
