import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { ChoosePasswordForm } from '@sift-reel/forms';
import type { ReactNode } from 'react';
import { useForm } from 'react-hook-form';
import { useParams } from 'react-router';
import { api } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { TextField } from '../../ui/fields.js';
import { Button, FormTrouble, Loading, Trouble } from '../../ui/parts.js';

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
  if (invitation.error !== undefined) return <Trouble title="This link leads nowhere" detail={problemText(invitation.error)} />;
  if (invitation.data === undefined) return <Loading what="the invitation" />;
  return (
    <main className="mx-auto flex h-full max-w-[420px] flex-col justify-center gap-4 px-6">
      <h1 className="text-[22px]">Welcome to Sift Reel, {invitation.data.name}</h1>
      <p className="text-soft">Choose a password for {invitation.data.email}. This link works once.</p>
      <form
        className="grid gap-4"
        noValidate
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
      >
        <TextField
          label="Password"
          type="password"
          autoComplete="new-password"
          autoFocus
          {...register('password')}
          hint="At least 12 characters"
          error={formState.errors.password?.message}
        />
        <FormTrouble error={error} />
        <Button tone="fill" type="submit" disabled={isLoading} className="py-2">
          Choose it and go in
        </Button>
      </form>
    </main>
  );
}
