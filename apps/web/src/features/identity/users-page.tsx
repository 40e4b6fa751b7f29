import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { NewUserForm, UserForm } from '@sift-reel/forms';
import { type ReactNode, useRef, useState } from 'react';
import { type Control, Controller, type FieldValues, type Path, useForm } from 'react-hook-form';
import { api, type InvitedUserView, type UserView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { sayTrouble } from '../../app/undo.js';
import { ConfirmDialog, Dialog, DialogFoot } from '../../ui/dialog.js';
import { Field, TextField } from '../../ui/fields.js';
import { Button, FormTrouble, Loading, PageHead, Trouble } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { differences, StaleChoice, staleCurrent } from '../../ui/stale.js';
import { t } from '../../texts/texts.js';
import { TrailRow } from '../../ui/trail.js';

/** The owner's list of users and which clients each sees. */
export function UsersPage(): ReactNode {
  const users = api.useListUsersQuery();
  const clients = api.useListClientsQuery();
  const [editing, setEditing] = useState<UserView | 'new' | null>(null);
  const [invited, setInvited] = useState<InvitedUserView | null>(null);
  if (users.error !== undefined) return <Trouble title={t('identity.the-users-cannot-be-shown')} detail={problemText(users.error)} />;
  if (users.data === undefined || clients.data === undefined) return <Loading what={t('identity.users')} />;
  const nameOf = new Map(clients.data.map((client) => [client.id, client.name]));
  const cell = 'border-b border-rule px-[18px] py-[9px] align-top';
  return (
    <div className="flex h-full flex-col">
      <PageHead title={t('common.users-and-assignments')} aside={t('identity.each-user-sees-the-clients-they')}>
        <Button tone="fill" onClick={() => setEditing('new')}>
          {t('identity.invite-a-user')}
        </Button>
      </PageHead>
      <div className="min-h-0 flex-1 overflow-auto">
        <table className="w-full">
          <tbody>
            {users.data.map((user) => (
              <tr key={user.id}>
                <td className={cell}>
                  <b>{user.name}</b>
                  {!user.active && <span className="text-soft">{` · ${t('identity.switched-off')}`}</span>}
                  {user.invited && user.active && <span className="text-soft">{` · ${t('identity.invited-has-not-come-yet')}`}</span>}
                  <div className="text-soft">{user.email}</div>
                </td>
                <td className={cell}>{ROLES[user.role]}</td>
                <td className={cell}>
                  {user.role === 'owner'
                    ? t('identity.all-clients')
                    : user.clientIds.map((id) => nameOf.get(id)).join(', ') || <span className="text-soft">{t('identity.no-client-yet')}</span>}
                </td>
                <td className={`${cell} text-right`}>
                  <button type="button" className="underline" onClick={() => setEditing(user)}>
                    {t('common.change')}
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <AgencyTrail />
      </div>
      {editing === 'new' && (
        <NewUser
          onClose={() => setEditing(null)}
          onInvited={(user) => {
            setEditing(null);
            setInvited(user);
          }}
        />
      )}
      {editing !== null && editing !== 'new' && (
        <ChangeUser
          user={editing}
          onClose={() => setEditing(null)}
          onInvited={(user) => {
            setEditing(null);
            setInvited(user);
          }}
        />
      )}
      {invited !== null && <InvitedDialog invited={invited} onClose={() => setInvited(null)} />}
    </div>
  );
}

const ROLES = { producer: t('identity.producer'), owner: t('identity.owner') } as const;
const ROLE_OPTIONS = (['producer', 'owner'] as const).map((value) => ({ value, name: ROLES[value] }));

/** Role and clients, the same for a new user and for a known one. */
function Rights<F extends FieldValues & Pick<UserForm, 'role' | 'clientIds'>>({ control }: { control: Control<F> }): ReactNode {
  const clients = api.useListClientsQuery();
  return (
    <>
      <Controller
        control={control}
        name={'role' as Path<F>}
        render={({ field }) => (
          <Select look="field" label={t('identity.role')} value={field.value as UserForm['role']} onChange={field.onChange} options={ROLE_OPTIONS} />
        )}
      />
      <Controller
        control={control}
        name={'clientIds' as Path<F>}
        render={({ field }) => (
          <Field label={t('common.clients')}>
            {(ids) => (
              <div {...ids} role="group" className="grid gap-1">
                {clients.data?.map((client) => (
                  <label key={client.id} className="flex gap-2">
                    <input
                      type="checkbox"
                      className="accent-ink"
                      checked={(field.value as string[]).includes(client.id)}
                      onChange={(event) =>
                        field.onChange(
                          event.target.checked ? [...(field.value as string[]), client.id] : (field.value as string[]).filter((id) => id !== client.id),
                        )
                      }
                    />
                    {client.name}
                  </label>
                ))}
              </div>
            )}
          </Field>
        )}
      />
    </>
  );
}

function NewUser({ onClose, onInvited }: { onClose: () => void; onInvited: (user: InvitedUserView) => void }): ReactNode {
  const [create, { error, isLoading }] = api.useCreateUserMutation();
  const { register, control, handleSubmit, formState } = useForm<NewUserForm>({
    resolver: classValidatorResolver(NewUserForm),
    defaultValues: { email: '', name: '', role: 'producer', clientIds: [] },
  });
  const submit = handleSubmit(async (form) => {
    onInvited(await create(form).unwrap());
  });
  return (
    <Dialog open onClose={onClose} title={t('identity.invite-a-user')}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
        noValidate
      >
        <TextField label={t('common.name')} autoFocus {...register('name')} error={formState.errors.name?.message} />
        <TextField
          label={t('identity.e-mail')}
          type="email"
          {...register('email')}
          hint={t('identity.a-link-to-choose-a-password')}
          error={formState.errors.email?.message}
        />
        <Rights control={control} />
        <FormTrouble error={error} />
        <DialogFoot>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button tone="fill" type="submit" disabled={isLoading}>
            {t('identity.invite-the-user')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}

/** Where the link went; where no mail can be sent, the link itself, to be handed over. */
function InvitedDialog({ invited: { user, mailed, link }, onClose }: { invited: InvitedUserView; onClose: () => void }): ReactNode {
  return (
    <Dialog open onClose={onClose} title={t('identity.is-invited', { name: user.name })}>
      {mailed ? (
        <p>{t('identity.a-link-to-choose-a-password-is', { email: user.email })}</p>
      ) : (
        <>
          <p>{t('identity.no-mail-could-be-sent-hand')}</p>
          <input
            aria-label={t('identity.link')}
            readOnly
            value={link ?? ''}
            className="mt-3 w-full border border-edge bg-sheet px-2 py-1 font-mono text-[12px]"
            onFocus={(event) => event.target.select()}
          />
        </>
      )}
      <DialogFoot>
        {link !== null && <Button onClick={() => void navigator.clipboard.writeText(link)}>{t('identity.copy-the-link')}</Button>}
        <Button tone="fill" onClick={onClose}>
          {t('common.close')}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}

const USER_NAMES = { name: t('common.name'), role: t('identity.role'), active: t('identity.may-sign-in') } as const;
const toForm = ({ name, role, clientIds, active, version }: UserView): UserForm => ({ name, role, clientIds, active, version });

function ChangeUser({ user, onClose, onInvited }: { user: UserView; onClose: () => void; onInvited: (user: InvitedUserView) => void }): ReactNode {
  const [update, { error, isLoading, reset: forget }] = api.useUpdateUserMutation();
  const [invite, inviting] = api.useInviteUserMutation();
  const [remove, removing] = api.useRemoveUserMutation();
  const [asking, setAsking] = useState(false);
  const seen = useRef(user.version);
  const { register, control, handleSubmit, formState, getValues, reset } = useForm<UserForm>({
    resolver: classValidatorResolver(UserForm),
    defaultValues: toForm(user),
  });
  const submit = handleSubmit(async (form) => {
    await update({ userId: user.id, userForm: { ...form, version: seen.current } }).unwrap();
    onClose();
  });
  const theirs = staleCurrent<UserView>(error);
  if (asking)
    return (
      <ConfirmDialog
        title={t('identity.remove', { name: user.name })}
        deed={t('identity.remove-the-user')}
        keep={t('identity.keep-them')}
        busy={removing.isLoading}
        onClose={() => setAsking(false)}
        onConfirm={() => {
          remove(user.id).unwrap().then(onClose, sayTrouble);
        }}
      >
        {t('identity.they-are-signed-out-everywhere-at')}
      </ConfirmDialog>
    );
  return (
    <Dialog open onClose={onClose} title={user.email}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
        noValidate
      >
        <TextField label={t('common.name')} {...register('name')} error={formState.errors.name?.message} />
        <Rights control={control} />
        <label className="flex gap-2">
          <input type="checkbox" className="accent-ink" {...register('active')} />
          {t('identity.may-sign-in-inline')}
        </label>
        {theirs === null ? (
          <FormTrouble error={error} />
        ) : (
          <StaleChoice
            what={t('identity.this-user')}
            changed={differences<UserForm>(toForm(theirs), getValues(), USER_NAMES)}
            onTake={() => {
              seen.current = theirs.version;
              reset(toForm(theirs));
              forget();
            }}
            onKeep={() => {
              seen.current = theirs.version;
              submit().catch(() => undefined);
            }}
          />
        )}
        <DialogFoot>
          <Button tone="trouble" className="mr-auto" onClick={() => setAsking(true)}>
            {t('common.remove')}
          </Button>
          <Button
            disabled={inviting.isLoading}
            title={t('identity.a-link-to-choose-a-new')}
            onClick={() => {
              invite(user.id).unwrap().then(onInvited, sayTrouble);
            }}
          >
            {t('identity.send-a-new-link')}
          </Button>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button tone="fill" type="submit" disabled={isLoading}>
            {t('identity.save-the-user')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}

/** What belongs to no client: sign-ins, failures, users, platform profiles, batches. */
function AgencyTrail(): ReactNode {
  const { data = [] } = api.useListAgencyAuditQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <section className="px-[18px] py-5">
      <h2 className="border-b border-ink pb-1">{t('identity.who-came-and-went-and-what')}</h2>
      <ul>
        {data.map((entry) => (
          <TrailRow key={entry.id} entry={entry} />
        ))}
      </ul>
    </section>
  );
}
