import clsx from 'clsx';
import type { ButtonHTMLAttributes, ReactNode } from 'react';
import { keyName } from '../app/keys.js';
import { problemText } from '../app/problems.js';
import { t } from '../texts/texts.js';

/** A key, as it is shown on the control it works. */
export function Key({ name }: { name: string }): ReactNode {
  return <kbd className="rounded-sm border border-current px-1 font-mono text-[10px] leading-[14px] font-medium">{keyName(name)}</kbd>;
}

type ButtonProps = ButtonHTMLAttributes<HTMLButtonElement> & { tone?: 'plain' | 'fill' | 'quiet' | 'trouble'; keyName?: string };

export function Button({ tone = 'plain', keyName: key, className, children, type = 'button', ...rest }: ButtonProps): ReactNode {
  return (
    <button
      type={type}
      className={clsx(
        'inline-flex items-center justify-center gap-[7px] rounded border px-[11px] py-[5px] text-xs font-semibold whitespace-nowrap disabled:opacity-45',
        tone === 'fill' && 'border-ink bg-ink text-sheet enabled:hover:opacity-90',
        tone === 'plain' && 'border-ink bg-transparent enabled:hover:bg-sheet',
        tone === 'quiet' && 'border-transparent text-soft enabled:hover:text-ink enabled:hover:underline',
        tone === 'trouble' && 'border-madder text-madder-text enabled:hover:bg-madder-tint',
        className,
      )}
      {...rest}
    >
      {children}
      {key !== undefined && <Key name={key} />}
    </button>
  );
}

export function Chip({ children, title }: { children: ReactNode; title?: string }): ReactNode {
  return (
    <span title={title} className="rounded-sm border border-rule bg-sheet px-[7px] py-[2px] text-xs whitespace-nowrap">
      {children}
    </span>
  );
}

/** An empty screen teaches: what will be here, and the one next step. */
export function EmptyState({ title, children, action }: { title: string; children: ReactNode; action?: ReactNode }): ReactNode {
  return (
    <div className="mx-auto flex max-w-[52ch] flex-col items-start gap-3 px-6 py-16">
      <h2 className="text-[17px]">{title}</h2>
      <div className="font-serif text-[16px] leading-[1.5] text-soft">{children}</div>
      {action}
    </div>
  );
}

/** Holds the place of what is being loaded, so that the layout stays still. */
export function Loading({ what, rows = 6 }: { what: string; rows?: number }): ReactNode {
  return (
    <div role="status" aria-label={t('ui.loading', { what })} className="flex flex-col gap-3 p-5">
      {Array.from({ length: rows }, (_, i) => (
        <div key={i} className="h-5 animate-pulse rounded-sm bg-faint motion-reduce:animate-none" style={{ width: `${88 - ((i * 17) % 40)}%` }} />
      ))}
    </div>
  );
}

export function Trouble({ title, detail, onRetry }: { title: string; detail: string; onRetry?: () => void }): ReactNode {
  return (
    <div role="alert" className="m-5 flex max-w-[64ch] flex-col items-start gap-2 border-l-4 border-madder bg-sheet px-4 py-3">
      <b>{title}</b>
      <p className="text-soft">{detail}</p>
      {onRetry !== undefined && <Button onClick={onRetry}>{t('ui.try-again')}</Button>}
    </div>
  );
}

/** Why a form was not taken, under its fields; nothing while there is no error. */
export function FormTrouble({ error, safe }: { error: unknown; safe?: string }): ReactNode {
  if (error === undefined) return null;
  return (
    <p role="alert" className="mt-3 border-l-4 border-madder bg-sheet px-3 py-2">
      {problemText(error)} {safe}
    </p>
  );
}

export function PageHead({ title, aside, children }: { title: string; aside?: ReactNode; children?: ReactNode }): ReactNode {
  return (
    <div className="flex min-h-[52px] flex-none flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule px-[18px] py-2">
      <h1 className="truncate">{title}</h1>
      <span className="truncate text-soft">{aside}</span>
      <span className="ml-auto flex max-w-full flex-wrap items-center gap-[6px] max-md:ml-0">{children}</span>
    </div>
  );
}

/** A thin bar with its value told to screen readers too. */
export function ProgressBar({ fraction, label }: { fraction: number; label: string }): ReactNode {
  return (
    <div
      role="progressbar"
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(fraction * 100)}
      className="h-[6px] w-full bg-faint"
    >
      <div className="h-full bg-ink transition-[width] duration-300 motion-reduce:transition-none" style={{ width: `${Math.round(fraction * 100)}%` }} />
    </div>
  );
}
