import { type ReactNode, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, type ShortView } from '../../app/api.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { TextField } from '../../ui/fields.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { t } from '../../texts/texts.js';

/** Puts approved shorts into a batch, new or old, and goes on to the schedule. */
export function BatchDialog({ shorts, onClose, onDone }: { shorts: readonly ShortView[]; onClose: () => void; onDone: () => void }): ReactNode {
  const batches = api.useListBatchesQuery();
  const [createBatch, creating] = api.useCreateBatchMutation();
  const [updateBatch, updating] = api.useUpdateBatchMutation();
  const [into, setInto] = useState('new');
  const [name, setName] = useState('');
  const navigate = useNavigate();
  const error = creating.error ?? updating.error;
  const ids = shorts.map((short) => short.id);
  const submit = async (): Promise<void> => {
    const old = batches.data?.find((batch) => batch.id === into);
    const batch =
      old === undefined
        ? await createBatch({ name: name.trim(), shortIds: ids }).unwrap()
        : await updateBatch({
            batchId: old.id,
            batchChangeForm: { name: old.name, shortIds: [...new Set([...old.shortIds, ...ids])], version: old.version },
          }).unwrap();
    onDone();
    void navigate(`/schedule?batch=${batch.id}`);
  };
  return (
    <Dialog open onClose={onClose} title={t('shorts.batch-shorts', { count: shorts.length })}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          submit().catch(() => undefined);
        }}
      >
        <ul className="max-h-[180px] overflow-y-auto border-y border-rule">
          {shorts.map((short) => (
            <li key={short.id} className="truncate border-b border-rule py-1 last:border-0">
              {short.copy.title}
            </li>
          ))}
        </ul>
        {(batches.data ?? []).length > 0 && (
          <Select
            look="field"
            label={t('shorts.into')}
            value={into}
            onChange={setInto}
            options={[
              { value: 'new', name: t('shorts.a-new-batch') },
              ...(batches.data ?? []).map((batch) => ({ value: batch.id, name: `${batch.name} (${batch.shortIds.length})` })),
            ]}
          />
        )}
        {into === 'new' && (
          <TextField
            label={t('shorts.name-of-the-batch')}
            value={name}
            autoFocus
            maxLength={80}
            onChange={(event) => setName(event.target.value)}
            placeholder={t('shorts.early-december')}
          />
        )}
        <FormTrouble error={error} />
        <DialogFoot>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button tone="fill" type="submit" disabled={(into === 'new' && name.trim() === '') || creating.isLoading || updating.isLoading}>
            {t('shorts.batch-shorts', { count: shorts.length })}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
