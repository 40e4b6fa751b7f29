import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { BlackoutForm as Form } from '@sift-reel/forms';
import type { ReactNode } from 'react';
import { useForm } from 'react-hook-form';
import { api, type ChannelView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { SelectField, TextField } from '../../ui/fields.js';
import { Button } from '../../ui/parts.js';

export function BlackoutForm({ clientId, channels }: { clientId: string; channels: readonly ChannelView[] }): ReactNode {
  const [create, { error, isLoading }] = api.useCreateBlackoutMutation();
  const { register, handleSubmit, formState, reset } = useForm<Form>({
    resolver: classValidatorResolver(Form),
    defaultValues: { channelId: null, fromDate: '', toDate: '', reason: '' },
  });
  const submit = handleSubmit(async (form) => {
    await create({ clientId, blackoutForm: form }).unwrap();
    reset();
  });
  return (
    <form
      className="mt-3 grid grid-cols-[1fr_1fr_1.3fr_1fr_auto] items-start gap-2"
      onSubmit={(event) => {
        submit(event).catch(() => undefined);
      }}
      noValidate
    >
      <TextField label="From" type="date" {...register('fromDate')} error={formState.errors.fromDate?.message} />
      <TextField label="To" type="date" {...register('toDate')} error={formState.errors.toDate?.message} />
      <TextField label="Reason" placeholder="stocktaking week" {...register('reason')} error={formState.errors.reason?.message} />
      <SelectField label="Channel" {...register('channelId', { setValueAs: (value: string | null) => (value === '' || value === null ? null : value) })}>
        <option value="">all</option>
        {channels.map((channel) => (
          <option key={channel.id} value={channel.id}>
            {channel.name}
          </option>
        ))}
      </SelectField>
      <Button type="submit" className="mt-[19px]" disabled={isLoading}>
        Add
      </Button>
      {error !== undefined && (
        <p role="alert" className="col-span-5 text-madder-text">
          {problemText(error)}
        </p>
      )}
    </form>
  );
}
