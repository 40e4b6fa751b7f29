import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { SignInForm } from '@sift-reel/forms';
import type { ReactNode } from 'react';
import { useForm } from 'react-hook-form';
import { api } from '../../app/api.js';
import { TextField } from '../../ui/fields.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { t, rich } from '../../texts/texts.js';

export function SignIn(): ReactNode {
  const [signIn, { error, isLoading }] = api.useSignInMutation();
  const { register, handleSubmit, formState } = useForm<SignInForm>({
    resolver: classValidatorResolver(SignInForm),
    defaultValues: { email: '', password: '' },
  });
  return (
    <div className="grid h-full grid-cols-1 md:grid-cols-[1fr_420px]">
      <div className="hidden flex-col justify-end border-r border-rule bg-sheet p-12 md:flex">
        <p className="max-w-[30ch] font-serif text-[34px] leading-[1.2]">
          {rich('identity.an-hour-of-talk-somewhere-in', {
            mark: (chunks) => <span className="bg-tint underline decoration-madder decoration-2 underline-offset-4">{chunks}</span>,
          })}
        </p>
        <p className="mt-5 max-w-[48ch] text-soft">{t('identity.sift-reel-listens-ranks-and-shows')}</p>
      </div>
      <form
        className="flex md:col-start-2 flex-col justify-center gap-4 px-6 md:px-10"
        onSubmit={(event) => void handleSubmit((form) => signIn(form))(event)}
        noValidate
      >
        <h1 className="text-[22px]">{t('identity.sign-in-to-sift-reel')}</h1>
        <TextField label={t('identity.e-mail')} type="email" autoComplete="username" autoFocus {...register('email')} error={formState.errors.email?.message} />
        <TextField
          label={t('identity.password')}
          type="password"
          autoComplete="current-password"
          {...register('password')}
          error={formState.errors.password?.message}
        />
        <FormTrouble error={error} />
        <Button tone="fill" type="submit" disabled={isLoading} className="py-2">
          {t('identity.sign-in')}
        </Button>
      </form>
    </div>
  );
}
