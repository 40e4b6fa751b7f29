import clsx from 'clsx';
import { X } from 'lucide-react';
import { type ReactNode, useEffect } from 'react';
import { toast, Toaster } from 'sonner';
import { t } from '../texts/texts.js';
import { Key } from '../ui/parts.js';
import { type Notice, noticeClosed } from './notices.js';
import { useAppDispatch, useAppSelector } from './store.js';
import { undoDeed, useLastDeedId } from './undo.js';

const SHOWN_MS = 6_000;

/** The newest message; what went wrong stays until it is closed. */
export function Notices(): ReactNode {
  const newest = useAppSelector((state) => state.notices.at(-1));
  const dispatch = useAppDispatch();
  useEffect(() => {
    if (newest === undefined) return;
    const close = (): void => {
      dispatch(noticeClosed(newest.id));
    };
    // Without an id given, each showing has one of its own: under the id of one that is still fading it would go with that one.
    const shown = toast.custom(() => <NoticeCard notice={newest} onClose={close} />, {
      duration: newest.kind === 'trouble' ? Number.POSITIVE_INFINITY : SHOWN_MS,
      onAutoClose: close,
    });
    return () => {
      toast.dismiss(shown);
    };
  }, [newest, dispatch]);
  return (
    <Toaster
      position="bottom-center"
      visibleToasts={1}
      containerAriaLabel={t('app.messages')}
      hotkey={[]}
      offset={{ bottom: 'calc(24px + var(--foot, 0px))' }}
      mobileOffset={{ bottom: 'max(68px, calc(24px + var(--foot, 0px)))' }}
      style={{ fontFamily: 'inherit' }}
    />
  );
}

function NoticeCard({ notice, onClose }: { notice: Notice; onClose: () => void }): ReactNode {
  const lastDeedId = useLastDeedId();
  return (
    <div
      role={notice.kind === 'trouble' ? 'alert' : 'status'}
      className={clsx(
        'flex w-max max-w-[min(80ch,calc(100vw-32px))] items-center gap-4 border-l-4 bg-bar px-4 py-[9px] text-bar-text shadow-[0_8px_24px_rgba(35,32,27,.3)]',
        notice.kind === 'trouble' ? 'border-ember' : 'border-bar-soft',
      )}
    >
      <span>{notice.text}</span>
      {notice.deedId !== null && notice.deedId === lastDeedId && (
        <button
          type="button"
          className="font-semibold underline underline-offset-2"
          onClick={() => {
            onClose();
            void undoDeed(notice.deedId!);
          }}
        >
          {t('common.undo')} <Key name="u" />
        </button>
      )}
      <button type="button" aria-label={t('app.close-this-message')} onClick={onClose}>
        <X size={14} />
      </button>
    </div>
  );
}
