import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { BlackoutForm as Form } from '@sift-reel/forms';
import type { ReactNode } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { api, type ChannelView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { DayField } from '../../ui/day-field.js';
import { TextField } from '../../ui/fields.js';
import { Button } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { t } from '../../texts/texts.js';

export function BlackoutForm({ clientId, channels }: { clientId: string; channels: readonly ChannelView[] }): ReactNode {
  const [create, { error, isLoading }] = api.useCreateBlackoutMutation();
  const { register, control, watch, handleSubmit, formState, reset } = useForm<Form>({
    resolver: classValidatorResolver(Form),
    defaultValues: { channelId: null, fromDate: '', toDate: '', reason: '' },
  });
  const submit = handleSubmit(async (form) => {
    await create({ clientId, blackoutForm: form }).unwrap();
    reset();
  });
  return (
    <form
      className="mt-3 grid grid-cols-2 items-start md:grid-cols-[1fr_1fr_1.3fr_1fr_auto] gap-2"
      onSubmit={(event) => {
        submit(event).catch(() => undefined);
      }}
      noValidate
    >
      <Controller
        control={control}
        name="fromDate"
        render={({ field }) => <DayField label={t('common.from')} value={field.value} onChange={field.onChange} error={formState.errors.fromDate?.message} />}
      />
      <Controller
        control={control}
        name="toDate"
        render={({ field }) => (
          <DayField
            label={t('common.to')}
            value={field.value}
            onChange={field.onChange}
            min={watch('fromDate') || undefined}
            error={formState.errors.toDate?.message}
          />
        )}
      />
      <TextField label={t('clients.reason')} placeholder={t('clients.stocktaking-week')} {...register('reason')} error={formState.errors.reason?.message} />
      <Controller
        control={control}
        name="channelId"
        render={({ field }) => (
          <Select
            look="field"
            label={t('common.channel')}
            value={field.value ?? ''}
            onChange={(id) => field.onChange(id === '' ? null : id)}
            options={[{ value: '', name: t('clients.all') }, ...channels.map((channel) => ({ value: channel.id, name: channel.name }))]}
          />
        )}
      />
      <Button type="submit" className="mt-[19px]" disabled={isLoading}>
        {t('clients.add')}
      </Button>
      {error !== undefined && (
        <p role="alert" className="col-span-5 text-madder-text">
          {problemText(error)}
        </p>
      )}
    </form>
  );
}
