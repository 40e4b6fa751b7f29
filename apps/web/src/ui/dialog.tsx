import { Dialog as HeadlessDialog, DialogPanel, DialogTitle } from '@headlessui/react';
import clsx from 'clsx';
import type { ReactNode } from 'react';
import { Button } from './parts.js';

export function Dialog({
  open,
  onClose,
  title,
  children,
  wide = false,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  children: ReactNode;
  wide?: boolean;
}): ReactNode {
  return (
    <HeadlessDialog open={open} onClose={onClose} className="relative z-40">
      <div className="fixed inset-0 bg-[#23201b]/45" aria-hidden="true" />
      <div className="fixed inset-0 flex items-start justify-center overflow-y-auto p-8">
        <DialogPanel className={clsx('w-full border border-rule bg-paper shadow-[0_12px_40px_rgba(35,32,27,.28)]', wide ? 'max-w-[860px]' : 'max-w-[560px]')}>
          <DialogTitle className="border-b border-rule px-5 py-3 text-[15px] font-bold">{title}</DialogTitle>
          <div className="px-5 py-4">{children}</div>
        </DialogPanel>
      </div>
    </HeadlessDialog>
  );
}

/** Foot of a dialog: the deed at the right, the way out beside it. */
export function DialogFoot({ children }: { children: ReactNode }): ReactNode {
  return <div className="-mx-5 mt-5 -mb-4 flex items-center justify-end gap-2 border-t border-rule bg-sheet px-5 py-3">{children}</div>;
}

/** Asks before something that cannot be undone; the safe way out comes first. */
export function ConfirmDialog({
  title,
  children,
  deed,
  keep,
  busy = false,
  onConfirm,
  onClose,
}: {
  title: string;
  children: ReactNode;
  deed: string;
  keep: string;
  busy?: boolean;
  onConfirm: () => void;
  onClose: () => void;
}): ReactNode {
  return (
    <Dialog open onClose={onClose} title={title}>
      <p>{children}</p>
      <DialogFoot>
        <Button onClick={onClose}>{keep}</Button>
        <Button tone="trouble" disabled={busy} onClick={onConfirm}>
          {deed}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
