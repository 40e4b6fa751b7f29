import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { ChangePasswordForm } from '@sift-reel/forms';
import type { ReactNode } from 'react';
import { useForm } from 'react-hook-form';
import { api } from '../../app/api.js';
import { noticed } from '../../app/notices.js';
import { problemOf } from '../../app/problems.js';
import { useAppDispatch } from '../../app/store.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { TextField } from '../../ui/fields.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { t } from '../../texts/texts.js';

/** Everybody changes their own password; other places where they are signed in are signed out. */
export function PasswordDialog({ onClose }: { onClose: () => void }): ReactNode {
  const [change, { error, isLoading }] = api.useChangePasswordMutation();
  const dispatch = useAppDispatch();
  const { register, handleSubmit, formState } = useForm<ChangePasswordForm>({
    resolver: classValidatorResolver(ChangePasswordForm),
    defaultValues: { current: '', next: '' },
  });
  const wrong = problemOf(error)?.errors?.find(({ field }) => field === 'current')?.detail;
  const submit = handleSubmit(async (changePasswordForm) => {
    await change(changePasswordForm).unwrap();
    dispatch(noticed({ kind: 'done', text: t('identity.your-password-is-changed-everywhere-else'), deedId: null }));
    onClose();
  });
  return (
    <Dialog open onClose={onClose} title={t('common.change-your-password')}>
      <form
        className="grid gap-4"
        noValidate
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
      >
        <TextField
          label={t('identity.password-until-now')}
          type="password"
          autoComplete="current-password"
          autoFocus
          {...register('current')}
          error={formState.errors.current?.message ?? wrong}
        />
        <TextField
          label={t('identity.new-password')}
          type="password"
          autoComplete="new-password"
          {...register('next')}
          hint={t('identity.at-least-12-characters')}
          error={formState.errors.next?.message}
        />
        {wrong === undefined && <FormTrouble error={error} />}
        <DialogFoot>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button tone="fill" type="submit" disabled={isLoading}>
            {t('identity.change-the-password')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
