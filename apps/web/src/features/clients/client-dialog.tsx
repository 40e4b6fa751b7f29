import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { ClientForm } from '@sift-reel/forms';
import { type ReactNode, useRef } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { api, type ClientView } from '../../app/api.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { ListField, TextField } from '../../ui/fields.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { differences, StaleChoice, staleCurrent } from '../../ui/stale.js';
import { ZoneOptions } from './zones.js';
import { t } from '../../texts/texts.js';

const FIRST_STANDING = { partStartMs: 0, partEndMs: null, minMs: 30_000, maxMs: 60_000, roughCount: 12, topics: [], kinds: [], avoid: [] };

export function ClientDialog({ client, onClose, onSaved }: { client: ClientView | null; onClose: () => void; onSaved: (id: string) => void }): ReactNode {
  const [create, creating] = api.useCreateClientMutation();
  const [update, updating] = api.useUpdateClientMutation();
  const seen = useRef(client?.version ?? 1);
  const { register, control, handleSubmit, formState, getValues, reset } = useForm<ClientForm>({
    resolver: classValidatorResolver(ClientForm),
    defaultValues: {
      name: client?.name ?? '',
      zone: client?.zone ?? 'Europe/Dublin',
      tags: client?.tags ?? [],
      standingBrief: client?.standingBrief ?? FIRST_STANDING,
    },
  });
  const error = creating.error ?? updating.error;
  const submit = handleSubmit(async (clientForm) => {
    const saved =
      client === null
        ? await create(clientForm).unwrap()
        : await update({ clientId: client.id, clientChangeForm: { ...clientForm, version: seen.current } }).unwrap();
    onSaved(saved.id);
  });
  const theirs = staleCurrent<ClientView>(error);
  return (
    <Dialog open onClose={onClose} title={client === null ? t('common.add-a-client') : client.name}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
        noValidate
      >
        <TextField label={t('common.name')} autoFocus {...register('name')} error={formState.errors.name?.message} />
        <TextField label={t('clients.time-zone')} list="zones" {...register('zone')} error={formState.errors.zone?.message} />
        <Controller
          control={control}
          name="tags"
          render={({ field }) => (
            <ListField
              label={t('clients.tags')}
              value={field.value}
              onChange={field.onChange}
              hint={t('clients.the-clients-own-hashtags-and-interests')}
              error={formState.errors.tags?.message}
            />
          )}
        />
        <ZoneOptions />
        {theirs === null ? (
          <FormTrouble error={error} />
        ) : (
          <StaleChoice
            what={t('common.this-client')}
            changed={differences<Pick<ClientView, 'name' | 'zone' | 'tags'>>(theirs, getValues(), {
              name: t('common.name'),
              zone: t('clients.time-zone'),
              tags: t('clients.tags'),
            })}
            onTake={() => {
              seen.current = theirs.version;
              const { name, zone, tags, standingBrief } = theirs;
              reset({ name, zone, tags, standingBrief });
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
            {client === null ? t('clients.add-the-client') : t('clients.save-the-client')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
