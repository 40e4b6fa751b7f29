import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import type { ReactNode } from 'react';
import { api, type RenderForm, type ShortView } from '../../app/api.js';
import { noticed } from '../../app/notices.js';
import { useAppDispatch } from '../../app/store.js';
import { sayTrouble } from '../../app/undo.js';
import { lufs } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { SHAPE_NAMES } from '../../ui/shapes.js';
import { type AskedFile, askedOfAll } from './asked-files.js';

const NAMES = { ...SHAPE_NAMES, sound: t('shorts.sound-alone') };

/** Files of all ticked shorts: made one after the other, then taken away together with their captions. */
export function FilesMenu({ shorts }: { shorts: readonly ShortView[] }): ReactNode {
  const [ask] = api.useAskForRenderMutation();
  const [ready] = api.useLazyListReadyQuery();
  const dispatch = useAppDispatch();
  const channels = api.useListChannelsQuery().currentData ?? [];
  const asked = askedOfAll([...new Set(shorts.map(({ clientId }) => clientId))], channels);
  const item = 'block w-full px-3 py-[7px] text-left data-focus:bg-faint';
  const make = async (file: AskedFile): Promise<void> => {
    for (const { id } of shorts) await ask({ shortId: id, renderForm: wanted(file) }).unwrap();
    dispatch(noticed({ kind: 'done', text: t('shorts.files-are-made', { count: shorts.length }), deedId: null }));
  };
  const take = async (file: AskedFile): Promise<void> => {
    const query = { ...wanted(file), shortIds: shorts.map(({ id }) => id).join(',') };
    const lacking = (await ready(query).unwrap()).filter((one) => !one.ready).map(({ title }) => `“${title}”`);
    if (lacking.length > 0) sayTrouble(new Error(t('shorts.no-file-yet-of', { titles: lacking.join(', ') })));
    else window.location.assign(`/api/renders/files.zip?${new URLSearchParams(query).toString()}`);
  };
  const row = (file: AskedFile, text: string, run: (file: AskedFile) => Promise<void>): ReactNode => (
    <MenuItem key={`${text} ${file.platform?.id ?? ''}`}>
      <button type="button" className={item} onClick={() => void run(file).catch(sayTrouble)}>
        {text}
        {file.platform !== null && (
          <span className="block text-[11px] text-soft">
            {t('shorts.as-loud-as', { platform: file.platform.name, loudness: lufs(file.platform.loudness) })}
          </span>
        )}
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
      <MenuItems
        anchor="bottom end"
        className="z-50 max-h-[80vh] w-[250px] overflow-y-auto border border-rule bg-sheet py-1 shadow-[0_8px_24px_rgba(35,32,27,.2)]"
      >
        {asked.map((file) => row(file, t('shorts.make-files', { count: shorts.length, shape: NAMES[file.shape] }), make))}
        <hr className="my-1 border-rule" />
        {asked.map((file) => row(file, t('shorts.take-files', { shape: NAMES[file.shape] }), take))}
      </MenuItems>
    </Menu>
  );
}

const wanted = ({ shape, platform }: AskedFile): RenderForm => (platform === null ? { shape } : { shape, platformProfileId: platform.id });
