import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { ChoosePasswordForm } from '@sift-reel/forms';
import type { ReactNode } from 'react';
import { useForm } from 'react-hook-form';
import { useParams } from 'react-router';
import { api } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { TextField } from '../../ui/fields.js';
import { Button, FormTrouble, Loading, Trouble } from '../../ui/parts.js';
import { t } from '../../texts/texts.js';

/** Where an invitation's link leads: choose a password, and one is in. The link works once. */
export function WelcomePage(): ReactNode {
  const { token = '' } = useParams();
  const invitation = api.useReadInvitationQuery(token);
  const [accept, { error, isLoading }] = api.useAcceptInvitationMutation();
  const { register, handleSubmit, formState } = useForm<ChoosePasswordForm>({
    resolver: classValidatorResolver(ChoosePasswordForm),
    defaultValues: { password: '' },
  });
  const submit = handleSubmit(async (choosePasswordForm) => {
    await accept({ token, choosePasswordForm }).unwrap();
    window.location.assign('/');
  });
  if (invitation.error !== undefined) return <Trouble title={t('identity.this-link-leads-nowhere')} detail={problemText(invitation.error)} />;
  if (invitation.data === undefined) return <Loading what={t('identity.the-invitation')} />;
  return (
    <main className="mx-auto flex h-full max-w-[420px] flex-col justify-center gap-4 px-6">
      <h1 className="text-[22px]">{t('identity.welcome-to-sift-reel', { name: invitation.data.name })}</h1>
      <p className="text-soft">{t('identity.choose-a-password-for-this-link', { email: invitation.data.email })}</p>
      <form
        className="grid gap-4"
        noValidate
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
      >
        <TextField
          label={t('identity.password')}
          type="password"
          autoComplete="new-password"
          autoFocus
          {...register('password')}
          hint={t('identity.at-least-12-characters')}
          error={formState.errors.password?.message}
        />
        <FormTrouble error={error} />
        <Button tone="fill" type="submit" disabled={isLoading} className="py-2">
          {t('identity.choose-it-and-go-in')}
        </Button>
      </form>
    </main>
  );
}
