import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { NewUserForm, UserForm } from '@sift-reel/forms';
import { type ReactNode, useState } from 'react';
import { type Control, Controller, useForm } from 'react-hook-form';
import { api, type UserView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Field, SelectField, TextField } from '../../ui/fields.js';
import { Button, Loading, PageHead, Trouble, FormTrouble } from '../../ui/parts.js';

/** The owner's list of users and which clients each sees. */
export function UsersPage(): ReactNode {
  const users = api.useListUsersQuery();
  const clients = api.useListClientsQuery();
  const [editing, setEditing] = useState<UserView | 'new' | null>(null);
  if (users.error !== undefined) return <Trouble title="The users cannot be shown" detail={problemText(users.error)} />;
  if (users.data === undefined || clients.data === undefined) return <Loading what="users" />;
  const nameOf = new Map(clients.data.map((client) => [client.id, client.name]));
  const cell = 'border-b border-rule px-[18px] py-[9px] align-top';
  return (
    <div className="flex h-full flex-col">
      <PageHead title="Users and assignments" aside="each user sees the clients they are assigned to; an owner sees all">
        <Button tone="fill" onClick={() => setEditing('new')}>
          Add a user
        </Button>
      </PageHead>
      <table className="w-full">
        <tbody>
          {users.data.map((user) => (
            <tr key={user.id}>
              <td className={cell}>
                <b>{user.name}</b>
                {!user.active && <span className="text-soft"> · switched off</span>}
                <div className="text-soft">{user.email}</div>
              </td>
              <td className={cell}>{user.role}</td>
              <td className={cell}>
                {user.role === 'owner'
                  ? 'all clients'
                  : user.clientIds.map((id) => nameOf.get(id)).join(', ') || <span className="text-soft">no client yet</span>}
              </td>
              <td className={`${cell} text-right`}>
                <button type="button" className="underline" onClick={() => setEditing(user)}>
                  Change
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {editing === 'new' && <NewUser onClose={() => setEditing(null)} />}
      {editing !== null && editing !== 'new' && <ChangeUser user={editing} onClose={() => setEditing(null)} />}
    </div>
  );
}

function ClientTicks({ control }: { control: Control<NewUserForm> | Control<UserForm> }): ReactNode {
  const clients = api.useListClientsQuery();
  return (
    <Controller
      control={control as Control<UserForm>}
      name="clientIds"
      render={({ field }) => (
        <Field label="Clients">
          {(ids) => (
            <div {...ids} className="grid gap-1">
              {clients.data?.map((client) => (
                <label key={client.id} className="flex gap-2">
                  <input
                    type="checkbox"
                    className="accent-ink"
                    checked={field.value.includes(client.id)}
                    onChange={(event) => field.onChange(event.target.checked ? [...field.value, client.id] : field.value.filter((id) => id !== client.id))}
                  />
                  {client.name}
                </label>
              ))}
            </div>
          )}
        </Field>
      )}
    />
  );
}

function NewUser({ onClose }: { onClose: () => void }): ReactNode {
  const [create, { error, isLoading }] = api.useCreateUserMutation();
  const { register, control, handleSubmit, formState } = useForm<NewUserForm>({
    resolver: classValidatorResolver(NewUserForm),
    defaultValues: { email: '', name: '', role: 'producer', password: '', clientIds: [] },
  });
  const submit = handleSubmit(async (form) => {
    await create(form).unwrap();
    onClose();
  });
  return (
    <Dialog open onClose={onClose} title="Add a user">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
        noValidate
      >
        <TextField label="Name" autoFocus {...register('name')} error={formState.errors.name?.message} />
        <TextField label="E-mail" type="email" {...register('email')} error={formState.errors.email?.message} />
        <TextField
          label="First password"
          type="password"
          autoComplete="new-password"
          {...register('password')}
          hint="At least 12 characters"
          error={formState.errors.password?.message}
        />
        <SelectField label="Role" {...register('role')}>
          <option value="producer">producer</option>
          <option value="owner">owner</option>
        </SelectField>
        <ClientTicks control={control} />
        <FormTrouble error={error} />
        <DialogFoot>
          <Button onClick={onClose}>Cancel</Button>
          <Button tone="fill" type="submit" disabled={isLoading}>
            Add the user
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}

function ChangeUser({ user, onClose }: { user: UserView; onClose: () => void }): ReactNode {
  const [update, { error, isLoading }] = api.useUpdateUserMutation();
  const { register, control, handleSubmit, formState } = useForm<UserForm>({
    resolver: classValidatorResolver(UserForm),
    defaultValues: { name: user.name, role: user.role, clientIds: user.clientIds, active: user.active },
  });
  const submit = handleSubmit(async (userForm) => {
    await update({ userId: user.id, userForm }).unwrap();
    onClose();
  });
  return (
    <Dialog open onClose={onClose} title={user.email}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
        noValidate
      >
        <TextField label="Name" {...register('name')} error={formState.errors.name?.message} />
        <SelectField label="Role" {...register('role')}>
          <option value="producer">producer</option>
          <option value="owner">owner</option>
        </SelectField>
        <ClientTicks control={control} />
        <label className="flex gap-2">
          <input type="checkbox" className="accent-ink" {...register('active')} />
          may sign in
        </label>
        <FormTrouble error={error} />
        <DialogFoot>
          <Button onClick={onClose}>Cancel</Button>
          <Button tone="fill" type="submit" disabled={isLoading}>
            Save the user
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
