import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { SHAPES } from '@sift-reel/core';
import type { ReactNode } from 'react';
import { api, type ShortView } from '../../app/api.js';
import { noticed } from '../../app/notices.js';
import { useAppDispatch } from '../../app/store.js';
import { sayTrouble } from '../../app/undo.js';
import { t } from '../../texts/texts.js';
import { SHAPE_NAMES } from '../../ui/shapes.js';

type Asked = (typeof SHAPES)[number];

/** Files of all ticked shorts: made one after the other, then taken away together with their captions. */
export function FilesMenu({ shorts }: { shorts: readonly ShortView[] }): ReactNode {
  const [ask] = api.useAskForRenderMutation();
  const [ready] = api.useLazyListReadyQuery();
  const dispatch = useAppDispatch();
  const item = 'block w-full px-3 py-[7px] text-left data-focus:bg-faint';
  const make = async (shape: Asked): Promise<void> => {
    for (const { id } of shorts) await ask({ shortId: id, renderForm: { shape } }).unwrap();
    dispatch(noticed({ kind: 'done', text: t('shorts.files-are-made', { count: shorts.length }), deedId: null }));
  };
  const take = async (shape: Asked): Promise<void> => {
    const query = { shape, shortIds: shorts.map(({ id }) => id).join(',') };
    const lacking = (await ready(query).unwrap()).filter((one) => !one.ready).map(({ title }) => `“${title}”`);
    if (lacking.length > 0) sayTrouble(new Error(t('shorts.no-file-yet-of', { titles: lacking.join(', ') })));
    else window.location.assign(`/api/renders/files.zip?${new URLSearchParams(query).toString()}`);
  };
  const row = (shape: Asked, text: string, run: (shape: Asked) => Promise<void>): ReactNode => (
    <MenuItem key={text}>
      <button type="button" className={item} onClick={() => void run(shape).catch(sayTrouble)}>
        {text}
      </button>
    </MenuItem>
  );
  return (
    <Menu>
      <MenuButton
        disabled={shorts.length === 0}
        title={shorts.length === 0 ? t('shorts.tick-approved-shorts-first') : undefined}
        className="rounded border border-ink px-[11px] py-[5px] text-xs font-semibold hover:bg-sheet disabled:opacity-45"
      >
        {t('shorts.files')}
      </MenuButton>
      <MenuItems anchor="bottom end" className="z-50 w-[250px] border border-rule bg-sheet py-1 shadow-[0_8px_24px_rgba(35,32,27,.2)]">
        {SHAPES.map((shape) => row(shape, t('shorts.make-files', { count: shorts.length, shape: SHAPE_NAMES[shape] }), make))}
        <hr className="my-1 border-rule" />
        {SHAPES.map((shape) => row(shape, t('shorts.take-files', { shape: SHAPE_NAMES[shape] }), take))}
      </MenuItems>
    </Menu>
  );
}
