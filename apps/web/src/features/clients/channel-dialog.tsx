import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { formatMinute, weekdayName } from '@sift-reel/core';
import { ChannelForm } from '@sift-reel/forms';
import { X } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { api, type ChannelView, type PlatformProfileView, type WindowForm } from '../../app/api.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { inputClass, SelectField, TextField } from '../../ui/fields.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { ZoneOptions } from './zones.js';

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
  const { register, control, handleSubmit, formState } = useForm<ChannelForm>({
    resolver: classValidatorResolver(ChannelForm),
    defaultValues: {
      name: channel?.name ?? '',
      platformProfileId: channel?.platform.id ?? '',
      zone: channel?.zone ?? zone,
      order: channel?.order ?? nextOrder,
      postsPerDay: channel?.postsPerDay ?? 1,
      postsPerWeek: channel?.postsPerWeek ?? 5,
      windows: channel?.windows ?? [],
    },
  });
  const submit = handleSubmit(async (channelForm) => {
    if (channel === null) await create({ clientId, channelForm }).unwrap();
    else await update({ channelId: channel.id, channelForm }).unwrap();
    onClose();
  });
  const wrong = formState.errors;
  return (
    <Dialog open onClose={onClose} title={channel === null ? 'Add a channel' : channel.name} wide>
      <form
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
        noValidate
      >
        <div className="grid grid-cols-3 gap-4">
          <TextField label="Name" autoFocus {...register('name')} error={wrong.name?.message} />
          <SelectField label="Platform profile" {...register('platformProfileId')} error={wrong.platformProfileId === undefined ? undefined : 'must be chosen'}>
            <option value="">choose…</option>
            {platforms.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </SelectField>
          <TextField label="Time zone" list="zones" {...register('zone')} error={wrong.zone?.message} />
          <TextField
            label="Order"
            type="number"
            min={1}
            {...register('order', { valueAsNumber: true })}
            hint="1 is where a short goes first"
            error={wrong.order?.message}
          />
          <TextField
            label="Posts a day, at most"
            type="number"
            min={1}
            {...register('postsPerDay', { valueAsNumber: true })}
            error={wrong.postsPerDay?.message}
          />
          <TextField
            label="Posts a week, at most"
            type="number"
            min={1}
            {...register('postsPerWeek', { valueAsNumber: true })}
            error={wrong.postsPerWeek?.message}
          />
        </div>
        <Controller control={control} name="windows" render={({ field }) => <Windows value={field.value} onChange={field.onChange} />} />
        <ZoneOptions />
        <FormTrouble error={error} />
        <DialogFoot>
          <Button onClick={onClose}>Cancel</Button>
          <Button tone="fill" type="submit" disabled={creating.isLoading || updating.isLoading}>
            {channel === null ? 'Add the channel' : 'Save the channel'}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}

/** Posting windows by weekday: times on the wall of the channel's zone, each with a weight. */
function Windows({ value, onChange }: { value: readonly WindowForm[]; onChange: (windows: WindowForm[]) => void }): ReactNode {
  const [clock, setClock] = useState('07:30');
  const [weight, setWeight] = useState(70);
  const minute = Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3));
  const add = (weekday: number): void => {
    if (!value.some((one) => one.weekday === weekday && one.minute === minute))
      onChange([...value, { weekday, minute, weight }].sort((a, b) => a.weekday - b.weekday || a.minute - b.minute));
  };
  return (
    <fieldset className="mt-5">
      <legend className="mb-2 text-xs font-semibold">Posting windows</legend>
      <div className="mb-2 flex items-center gap-3 text-[12px]">
        <label className="flex items-center gap-2">
          Time{' '}
          <input
            type="time"
            className={`${inputClass} !w-[110px] font-mono`}
            value={clock}
            onChange={(event) => {
              if (/^\d\d:\d\d$/.test(event.target.value)) setClock(event.target.value);
            }}
          />
        </label>
        <label className="flex items-center gap-2">
          Weight{' '}
          <input
            type="number"
            min={1}
            max={100}
            className={`${inputClass} !w-[70px]`}
            value={weight}
            onChange={(event) => setWeight(Math.min(100, Math.max(1, Number(event.target.value) || 1)))}
          />
        </label>
        <span className="text-soft">then choose the weekdays; a greater weight is taken first</span>
      </div>
      <div className="grid grid-cols-7 gap-[4px]">
        {[1, 2, 3, 4, 5, 6, 7].map((day) => (
          <div key={day} className="min-h-[84px] border border-rule bg-sheet p-1">
            <button
              type="button"
              className="w-full border-b border-rule pb-1 text-left text-[11.5px] font-semibold hover:underline"
              onClick={() => add(day)}
              title={`Add ${clock} on ${weekdayName(day)}`}
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
                    aria-label={`Remove ${formatMinute(one.minute)} on ${weekdayName(day)}`}
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
