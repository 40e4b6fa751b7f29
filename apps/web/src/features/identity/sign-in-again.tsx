import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { SignInForm } from '@sift-reel/forms';
import type { ReactNode } from 'react';
import { useForm } from 'react-hook-form';
import { api } from '../../app/api.js';
import { goOn, signedIn } from '../../app/session.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { Dialog } from '../../ui/dialog.js';
import { TextField } from '../../ui/fields.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { t } from '../../texts/texts.js';

/** The session ended: sign in over the screen, which stays as it is, and go on where one was. */
export function SignInAgain(): ReactNode {
  const userId = useAppSelector((state) => state.session.userId);
  const known = api.useReadSessionQuery().data;
  const dispatch = useAppDispatch();
  const [signIn, { error, isLoading }] = api.useSignInMutation();
  const { register, handleSubmit, formState } = useForm<SignInForm>({
    resolver: classValidatorResolver(SignInForm),
    defaultValues: { email: known?.email ?? '', password: '' },
  });
  const submit = handleSubmit(async (form) => {
    const session = await signIn(form).unwrap();
    if (session.userId !== userId) return window.location.assign('/'); // somebody else: these screens are not theirs
    dispatch(api.util.upsertQueryData('readSession', undefined, session));
    dispatch(signedIn(session.userId));
    goOn();
    dispatch(api.util.invalidateTags(['Recording', 'Sift', 'Short', 'Batch', 'Schedule', 'Client']));
  });
  return (
    <Dialog open onClose={() => undefined} title={t('identity.your-session-ended')}>
      <form
        className="grid gap-4"
        noValidate
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
      >
        <p className="text-soft">{t('identity.sign-in-and-go-on-where')}</p>
        <TextField label={t('identity.e-mail')} type="email" autoComplete="username" {...register('email')} error={formState.errors.email?.message} />
        <TextField
          label={t('identity.password')}
          type="password"
          autoComplete="current-password"
          autoFocus
          {...register('password')}
          error={formState.errors.password?.message}
        />
        <FormTrouble error={error} />
        <Button tone="fill" type="submit" disabled={isLoading} className="py-2">
          {t('identity.sign-in-and-go-on')}
        </Button>
      </form>
    </Dialog>
  );
}
