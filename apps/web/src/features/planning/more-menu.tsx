import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import type { ReactNode } from 'react';
import { t } from '../../texts/texts.js';

interface MoreMenuProps {
  from: string;
  to: string;
  clientId: string | null;
  /** Null where there is nothing to do it with. */
  onFill: (() => void) | null;
  onChoose: (() => void) | null;
  onRead: () => void;
  /** Null where it is not one's to stop. */
  onStop: (() => void) | null;
}

/** What is done with all that is shown. */
export function MoreMenu({ from, to, clientId, onFill, onChoose, onRead, onStop }: MoreMenuProps): ReactNode {
  const item = 'block w-full px-3 py-[7px] text-left data-disabled:text-soft data-focus:bg-faint';
  const range = `from=${from}&to=${to}${clientId === null ? '' : `&clientId=${clientId}`}`;
  return (
    <Menu>
      <MenuButton className="rounded border border-ink px-[11px] py-[5px] text-xs font-semibold hover:bg-sheet">{t('planning.more')}</MenuButton>
      <MenuItems anchor="bottom end" className="z-50 w-[270px] border border-rule bg-sheet py-1 shadow-[0_8px_24px_rgba(35,32,27,.2)]">
        <MenuItem disabled={onFill === null}>
          <button type="button" className={item} onClick={() => onFill?.()}>
            {t('planning.fill-the-holes-shown')}
          </button>
        </MenuItem>
        <MenuItem disabled={onChoose === null}>
          <button type="button" className={item} onClick={() => onChoose?.()}>
            {t('planning.choose-all-that-is-planned-here')}
          </button>
        </MenuItem>
        <MenuItem>
          <button type="button" className={item} onClick={onRead}>
            {t('planning.read-a-plan-2')}
          </button>
        </MenuItem>
        {onStop !== null && (
          <MenuItem>
            <button type="button" className={`${item} text-madder-text`} onClick={onStop}>
              {t('planning.stop-posting-for-everything')}
            </button>
          </MenuItem>
        )}
        <MenuItem>
          <a className={item} href={`/api/schedule/plan.csv?${range}`} download>
            {t('planning.shown-weeks-as-csv')}
          </a>
        </MenuItem>
        <MenuItem>
          <a className={item} href={`/api/schedule/plan.ics?${range}`} download>
            {t('planning.shown-weeks-as-calendar-ical')}
          </a>
        </MenuItem>
      </MenuItems>
    </Menu>
  );
}
