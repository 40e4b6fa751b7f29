import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { LinkForm as Form } from '@sift-reel/forms';
import type { ReactNode } from 'react';
import { useForm } from 'react-hook-form';
import { api, type RecordingView } from '../../app/api.js';
import { problemOf } from '../../app/problems.js';
import { didSomething } from '../../app/undo.js';
import { t } from '../../texts/texts.js';
import { TextField } from '../../ui/fields.js';
import { Button, FormTrouble } from '../../ui/parts.js';

/** How an address begins, in every language. */
const A_LINK = 'https://';

/** A recording from an address: its file, and its transcript where that has an address of its own. */
export function LinkForm({ clientId, onDone }: { clientId: string; onDone: () => void }): ReactNode {
  const [bringIn, { error, isLoading }] = api.useFetchLinkMutation();
  const [remove] = api.useRemoveRecordingMutation();
  const { register, handleSubmit, formState } = useForm<Form>({
    resolver: classValidatorResolver(Form),
    defaultValues: { url: '', transcriptUrl: null, title: null, sift: false },
  });
  const refused = Object.fromEntries((problemOf(error)?.errors ?? []).map(({ field, detail }) => [field, detail]));
  const submit = handleSubmit(async (linkForm) => {
    let made: RecordingView = await bringIn({ clientId, linkForm }).unwrap();
    didSomething(
      t('recordings.fetching-title', { title: made.title }),
      () => remove(made.id).unwrap(),
      async () => {
        made = await bringIn({ clientId, linkForm }).unwrap();
      },
    );
    onDone();
  });
  const orNull = { setValueAs: (value: string | null) => (value === null || value.trim() === '' ? null : value) };
  return (
    <form
      className="mt-3 grid items-start gap-x-4 gap-y-3 border-l-4 border-edge pl-4 md:grid-cols-[1.4fr_1.2fr_1fr]"
      onSubmit={(event) => {
        submit(event).catch(() => undefined);
      }}
      noValidate
    >
      <TextField
        label={t('recordings.address-of-the-file')}
        placeholder={A_LINK}
        inputMode="url"
        autoFocus
        error={formState.errors.url?.message ?? refused['url']}
        hint={t('recordings.of-the-file-itself')}
        {...register('url')}
      />
      <TextField
        label={t('recordings.address-of-its-transcript')}
        placeholder={A_LINK}
        inputMode="url"
        error={formState.errors.transcriptUrl?.message ?? refused['transcriptUrl']}
        hint={t('recordings.leave-empty-without')}
        {...register('transcriptUrl', orNull)}
      />
      <TextField
        label={t('common.title')}
        maxLength={160}
        error={formState.errors.title?.message ?? refused['title']}
        hint={t('recordings.empty-takes-the-name-of-the-file')}
        {...register('title', orNull)}
      />
      <div className="flex flex-wrap items-center gap-3 md:col-span-3">
        <label className="flex items-center gap-2">
          <input type="checkbox" className="accent-ink" {...register('sift')} />
          {t('recordings.sift-as-soon-as')}
        </label>
        <span className="ml-auto flex gap-2">
          <Button onClick={onDone}>{t('common.cancel')}</Button>
          <Button tone="fill" type="submit" disabled={isLoading}>
            {t('recordings.fetch-the-recording')}
          </Button>
        </span>
      </div>
      {error !== undefined && Object.keys(refused).length === 0 && <FormTrouble error={error} />}
    </form>
  );
}
