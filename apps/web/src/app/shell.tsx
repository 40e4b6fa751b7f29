import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import clsx from 'clsx';
import { Languages, Moon, Sun } from 'lucide-react';
import { type ReactNode, useEffect, useState } from 'react';
import { isRouteErrorResponse, Link, NavLink, Outlet, useRouteError } from 'react-router';
import { PasswordDialog } from '../features/identity/password-dialog.js';
import { SignIn } from '../features/identity/sign-in.js';
import { SignInAgain } from '../features/identity/sign-in-again.js';
import { Dialog } from '../ui/dialog.js';
import { Button, EmptyState, Key, Trouble } from '../ui/parts.js';
import { api } from './api.js';
import { type KeyBinding, useActiveKeys, useKeys } from './keys.js';
import { eventsApi } from './events.js';
import { Notices } from './notices-shown.js';
import { signedIn } from './session.js';
import { useAppDispatch, useAppSelector } from './store.js';
import { isAtWork } from './stages.js';
import { applyTheme, readTheme, type Theme } from './theme.js';
import { redoLast, undoLast } from './undo.js';
import { t, chooseLanguage, type Language, LANGUAGES, language } from '../texts/texts.js';
import { timeLeft } from '../texts/formats.js';

/** The frame around every screen: who is signed in, where one can go, what is at work, what was just done. */
export function Shell(): ReactNode {
  const { data: session, isLoading, error, refetch } = api.useReadSessionQuery();
  const dispatch = useAppDispatch();
  const userId = session?.userId;
  useEffect(() => {
    if (userId !== undefined && error === undefined) dispatch(signedIn(userId));
  }, [userId, error, dispatch]);
  if (isLoading) return null;
  if (session === undefined) {
    const status = (error as { status?: unknown } | undefined)?.status;
    if (status !== 401)
      return <Trouble title={t('app.the-server-does-not-answer')} detail={t('app.nothing-is-lost-start-sift-reel')} onRetry={() => void refetch()} />;
    return <SignIn />;
  }
  return <Frame name={session.name} owner={session.role === 'owner'} />;
}

const PLACES = [
  ['/', t('common.desk')],
  ['/recordings', t('common.recordings')],
  ['/shorts', t('common.shorts')],
  ['/schedule', t('common.schedule')],
  ['/clients', t('common.clients')],
] as const;

function Frame({ name, owner }: { name: string; owner: boolean }): ReactNode {
  eventsApi.useFollowJobsQuery();
  const ended = useAppSelector((state) => state.session.ended);
  const [help, setHelp] = useState(false);
  useKeys([
    { key: '?', label: t('app.show-these-keys'), group: t('app.everywhere'), run: () => setHelp(true) },
    { key: 'u', label: t('app.undo-the-last-change'), group: t('app.everywhere'), run: () => void undoLast() },
    { key: 'mod+z', label: t('app.undo-the-last-change'), group: t('app.everywhere'), run: () => void undoLast() },
    { key: 'r', label: t('app.do-again-what-was-undone'), group: t('app.everywhere'), run: () => void redoLast() },
    { key: 'mod+shift+z', label: t('app.do-again-what-was-undone'), group: t('app.everywhere'), run: () => void redoLast() },
  ]);
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_1fr]">
      <header className="flex min-h-[44px] flex-wrap items-center gap-x-[22px] bg-bar px-[18px] text-bar-text">
        <Link to="/" className="flex items-center gap-2 text-[15px] font-extrabold tracking-[-.01em]">
          <Mark />
          {t('app.sift-reel')}
        </Link>
        <nav
          aria-label={t('app.main')}
          className="flex gap-1 max-md:order-last max-md:-mx-[11px] max-md:w-[calc(100%+22px)] max-md:gap-0 max-md:overflow-x-auto max-md:pb-1"
        >
          {PLACES.map(([to, label]) => (
            <NavLink
              key={to}
              to={to}
              end={to === '/'}
              className={({ isActive }) =>
                clsx(
                  'rounded px-[11px] py-[6px] max-md:flex-none max-md:px-[8px]',
                  isActive ? 'text-bar-text shadow-[inset_0_-2px_var(--ember)]' : 'text-bar-soft hover:text-bar-text',
                )
              }
            >
              {label}
            </NavLink>
          ))}
        </nav>
        <span className="ml-auto flex min-w-0 items-center gap-4 py-2 text-bar-soft">
          <Working />
          <button type="button" onClick={() => setHelp(true)} className="hover:text-bar-text max-md:hidden">
            {t('app.keys')} <Key name="?" />
          </button>
          <UserMenu name={name} owner={owner} />
        </span>
      </header>
      <main className="min-h-0 overflow-hidden">
        <Outlet />
      </main>
      <Notices />
      {ended && <SignInAgain />}
      <KeysDialog open={help} onClose={() => setHelp(false)} />
    </div>
  );
}

function Mark(): ReactNode {
  return (
    <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
      <circle cx="9" cy="9" r="8" fill="none" stroke="var(--ember)" strokeWidth="2" />
      <path d="M4 6h10M3.4 9h11.2M4 12h10" stroke="var(--bar-text)" strokeWidth="1.2" strokeDasharray="1.6 1.6" />
    </svg>
  );
}

/** "2 recordings working · 6 min left" */
function Working(): ReactNode {
  const { data: recordings = [] } = api.useListRecordingsQuery(undefined);
  const working = recordings.filter((one) => isAtWork(one.latestSift));
  if (working.length === 0) return null;
  const leftMs = Math.max(...working.map((one) => one.latestSift?.leftMs ?? 0));
  return (
    <Link to="/recordings" role="status" className="truncate hover:text-bar-text">
      {leftMs > 0
        ? t('app.recordings-working-left', { count: working.length, left: timeLeft(leftMs) })
        : t('app.recordings-working', { count: working.length })}
    </Link>
  );
}

function UserMenu({ name, owner }: { name: string; owner: boolean }): ReactNode {
  const [signOut] = api.useSignOutMutation();
  const dispatch = useAppDispatch();
  const [theme, setTheme] = useState<Theme>(readTheme);
  const [changing, setChanging] = useState(false);
  const item = 'flex w-full items-center gap-2 px-3 py-[7px] text-left data-focus:bg-faint';
  return (
    <>
      <Menu>
        <MenuButton className="hover:text-bar-text">{name}</MenuButton>
        <MenuItems anchor="bottom end" className="z-50 w-[210px] border border-rule bg-sheet py-1 text-ink shadow-[0_8px_24px_rgba(35,32,27,.2)]">
          <MenuItem>
            <button
              type="button"
              className={item}
              onClick={() => {
                const next = theme === 'day' ? 'night' : 'day';
                applyTheme(next);
                setTheme(next);
              }}
            >
              {theme === 'day' ? <Moon size={14} /> : <Sun size={14} />}
              {theme === 'day' ? t('app.night-proof') : t('app.day-proof')}
            </button>
          </MenuItem>
          {(Object.keys(LANGUAGES) as Language[])
            .filter((one) => one !== language())
            .map((one) => (
              <MenuItem key={one}>
                <button type="button" lang={one} className={item} onClick={() => chooseLanguage(one)}>
                  <Languages size={14} />
                  {LANGUAGES[one].name}
                </button>
              </MenuItem>
            ))}
          <MenuItem>
            <button type="button" className={item} onClick={() => setChanging(true)}>
              {t('common.change-your-password')}
            </button>
          </MenuItem>
          <MenuItem>
            <Link className={item} to="/platforms">
              {t('common.platform-profiles')}
            </Link>
          </MenuItem>
          {owner && (
            <MenuItem>
              <Link className={item} to="/users">
                {t('common.users-and-assignments')}
              </Link>
            </MenuItem>
          )}
          <MenuItem>
            <a className={item} href="/api/docs" target="_blank" rel="noreferrer">
              {t('app.api-document')}
            </a>
          </MenuItem>
          <MenuItem>
            <button
              type="button"
              className={item}
              onClick={() => {
                void signOut().then(() => {
                  dispatch(api.util.resetApiState());
                  window.location.assign('/');
                });
              }}
            >
              {t('app.sign-out')}
            </button>
          </MenuItem>
        </MenuItems>
      </Menu>
      {changing && <PasswordDialog onClose={() => setChanging(false)} />}
    </>
  );
}

function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }): ReactNode {
  const keys = useActiveKeys();
  const groups = new Map<string, Map<string, KeyBinding[]>>();
  for (const binding of keys) {
    const group = groups.get(binding.group) ?? new Map<string, KeyBinding[]>();
    group.set(binding.label, [...(group.get(binding.label) ?? []), binding]);
    groups.set(binding.group, group);
  }
  return (
    <Dialog open={open} onClose={onClose} title={t('app.keys-on-this-screen')} wide>
      <div className="columns-2 gap-8">
        {[...groups].map(([name, bindings]) => (
          <section key={name} className="mb-4 break-inside-avoid">
            <h2 className="mb-1">{name}</h2>
            <dl>
              {[...bindings].map(([label, list]) => (
                <div key={label} className="flex items-center justify-between border-t border-rule py-1">
                  <dt>{label}</dt>
                  <dd className="flex gap-1">
                    {list.map((binding) => (
                      <Key key={binding.key} name={binding.key} />
                    ))}
                  </dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
      <Button onClick={onClose}>{t('common.close')}</Button>
    </Dialog>
  );
}

export function NotFound(): ReactNode {
  return (
    <EmptyState
      title={t('app.there-is-nothing-here')}
      action={
        <Link to="/" className="font-semibold underline">
          {t('app.go-to-the-desk')}
        </Link>
      }
    >
      {t('app.the-address-leads-to-no-screen')}
    </EmptyState>
  );
}

export function RouteTrouble(): ReactNode {
  const error = useRouteError();
  const detail = isRouteErrorResponse(error) ? error.statusText : error instanceof Error ? error.message : String(error);
  return <Trouble title={t('app.this-screen-broke')} detail={t('app.what-you-saved-is-safe-load', { detail })} onRetry={() => window.location.reload()} />;
}
