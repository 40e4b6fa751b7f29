import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { formatLength, SHAPES } from '@sift-reel/core';
import { PlatformProfileForm } from '@sift-reel/forms';
import { type ReactNode, useRef, useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { api, type PlatformProfileView } from '../../app/api.js';
import { problemText } from '../../app/problems.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Field, TextField } from '../../ui/fields.js';
import { differences, StaleChoice, staleCurrent } from '../../ui/stale.js';
import { Button, Loading, PageHead, Trouble, FormTrouble } from '../../ui/parts.js';
import { formatLevel, lufs } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { Select } from '../../ui/select.js';
import { SHAPE_NAMES } from '../../ui/shapes.js';

/** The destinations' rules. The owner keeps them; everybody sees them. */
export function PlatformsPage(): ReactNode {
  const platforms = api.useListPlatformProfilesQuery();
  const session = api.useReadSessionQuery();
  const [editing, setEditing] = useState<PlatformProfileView | 'new' | null>(null);
  const owner = session.data?.role === 'owner';
  if (platforms.error !== undefined) return <Trouble title={t('clients.the-platform-profiles-cannot-be-shown')} detail={problemText(platforms.error)} />;
  if (platforms.data === undefined) return <Loading what={t('clients.platform-profiles')} />;
  const cell = 'border-b border-rule px-[18px] py-[9px] align-top';
  return (
    <div className="flex h-full flex-col">
      <PageHead title={t('common.platform-profiles')} aside={t('clients.what-each-destination-allows')}>
        {owner && (
          <Button tone="fill" onClick={() => setEditing('new')}>
            {t('clients.add-a-profile')}
          </Button>
        )}
      </PageHead>
      <div className="min-h-0 flex-1 overflow-auto">
        <table className="w-full">
          <thead>
            <tr className="text-left text-xs text-soft">
              {[
                t('clients.platform'),
                t('common.length'),
                t('clients.shapes'),
                t('common.title'),
                t('common.description'),
                t('common.hashtags'),
                t('clients.a-day'),
                t('clients.gap'),
                t('clients.loudness'),
                '',
              ].map((head) => (
                <th key={head} className="border-b border-rule px-[18px] py-2 font-semibold">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {platforms.data.map((one) => (
              <tr key={one.id}>
                <td className={`${cell} font-semibold`}>{one.name}</td>
                <td className={`${cell} time`}>
                  {formatLength(one.minDurationMs)} – {formatLength(one.maxDurationMs)}
                </td>
                <td className={cell}>{one.shapes.map((shape) => SHAPE_NAMES[shape]).join(', ')}</td>
                <td className={cell}>{t('clients.characters', { titleLimit: one.titleLimit })}</td>
                <td className={cell}>{t('clients.descriptionlimit-characters', { descriptionLimit: one.descriptionLimit })}</td>
                <td className={cell}>{one.hashtagLimit}</td>
                <td className={cell}>{one.postsPerDay}</td>
                <td className={cell}>{t('common.minutes-short', { number: one.minGapMinutes })}</td>
                <td className={`${cell} whitespace-nowrap`}>
                  {lufs(one.loudness)}
                  <span className="block text-xs text-soft">{t('clients.at-most-dbtp', { peak: formatLevel(one.truePeak) })}</span>
                </td>
                <td className={`${cell} text-right`}>
                  {owner && (
                    <button type="button" className="underline" onClick={() => setEditing(one)}>
                      {t('common.change')}
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {editing !== null && <PlatformDialog platform={editing === 'new' ? null : editing} onClose={() => setEditing(null)} />}
    </div>
  );
}

const PLATFORM_NAMES = {
  name: t('common.name'),
  minDurationMs: t('clients.shortest-ms'),
  maxDurationMs: t('clients.longest-ms'),
  shapes: t('clients.shapes'),
  titleLimit: t('common.title'),
  descriptionLimit: t('common.description'),
  hashtagLimit: t('common.hashtags'),
  postsPerDay: t('clients.posts-a-day'),
  minGapMinutes: t('clients.gap-minutes'),
  loudness: t('clients.loudness-lufs'),
  truePeak: t('clients.true-peak-dbtp'),
  service: t('clients.posts-through'),
} as const;

const BY_HAND = 'by-hand';

function PlatformDialog({ platform, onClose }: { platform: PlatformProfileView | null; onClose: () => void }): ReactNode {
  const [create, creating] = api.useCreatePlatformProfileMutation();
  const [update, updating] = api.useUpdatePlatformProfileMutation();
  const services = api.useReadPostingQuery().data?.services ?? [];
  const seen = useRef(platform?.version ?? 1);
  const {
    id: _,
    version: __,
    ...fields
  } = platform ?? {
    id: '',
    version: 1,
    name: '',
    minDurationMs: 5_000,
    maxDurationMs: 60_000,
    shapes: ['vertical'] as PlatformProfileForm['shapes'],
    titleLimit: 100,
    descriptionLimit: 500,
    hashtagLimit: 5,
    postsPerDay: 2,
    minGapMinutes: 120,
    // What most play at. Common practice.
    loudness: -14,
    truePeak: -1,
    service: null,
  };
  const { register, control, handleSubmit, formState, getValues, reset } = useForm<PlatformProfileForm>({
    resolver: classValidatorResolver(PlatformProfileForm),
    defaultValues: fields,
  });
  const error = creating.error ?? updating.error;
  const wrong = formState.errors;
  const submit = handleSubmit(async (platformProfileForm) => {
    if (platform === null) await create(platformProfileForm).unwrap();
    else await update({ platformProfileId: platform.id, platformProfileChangeForm: { ...platformProfileForm, version: seen.current } }).unwrap();
    onClose();
  });
  const theirs = staleCurrent<PlatformProfileView>(error);
  const seconds = (name: 'minDurationMs' | 'maxDurationMs', label: string): ReactNode => (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <TextField
          label={label}
          type="number"
          min={0}
          value={field.value / 1_000}
          onChange={(event) => field.onChange(Math.round(Number(event.target.value) * 1_000))}
          error={wrong[name]?.message}
        />
      )}
    />
  );
  const whole = (name: 'titleLimit' | 'descriptionLimit' | 'hashtagLimit' | 'postsPerDay' | 'minGapMinutes', label: string): ReactNode => (
    <TextField label={label} type="number" min={0} {...register(name, { valueAsNumber: true })} error={wrong[name]?.message} />
  );
  const level = (name: 'loudness' | 'truePeak', label: string): ReactNode => (
    <TextField label={label} type="number" step={0.5} {...register(name, { valueAsNumber: true })} error={wrong[name]?.message} />
  );
  return (
    <Dialog open onClose={onClose} title={platform === null ? t('clients.add-a-platform-profile') : platform.name} wide>
      <form
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
        noValidate
      >
        <div className="grid grid-cols-2 gap-4 md:grid-cols-3">
          <TextField label={t('common.name')} autoFocus {...register('name')} error={wrong.name?.message} />
          {seconds('minDurationMs', t('clients.shortest-seconds'))}
          {seconds('maxDurationMs', t('common.longest-seconds'))}
          {whole('titleLimit', t('clients.title-characters'))}
          {whole('descriptionLimit', t('clients.description-characters'))}
          {whole('hashtagLimit', t('common.hashtags'))}
          {whole('postsPerDay', t('clients.posts-a-day'))}
          {whole('minGapMinutes', t('clients.gap-between-posts-minutes'))}
          {level('loudness', t('clients.loudness-lufs'))}
          {level('truePeak', t('clients.true-peak-dbtp'))}
          {services.length > 0 && (
            <Controller
              control={control}
              name="service"
              render={({ field }) => (
                <Select
                  look="field"
                  label={t('clients.posts-through')}
                  value={field.value ?? BY_HAND}
                  options={[{ value: BY_HAND, name: t('clients.by-hand') }, ...services.map(({ name, title }) => ({ value: name, name: title }))]}
                  onChange={(value) => field.onChange(value === BY_HAND ? null : value)}
                />
              )}
            />
          )}
          <Controller
            control={control}
            name="shapes"
            render={({ field }) => (
              <Field label={t('clients.shapes')}>
                {(ids) => (
                  <div {...ids} className="grid grid-cols-2">
                    {SHAPES.map((shape) => (
                      <label key={shape} className="flex gap-1">
                        <input
                          type="checkbox"
                          className="accent-ink"
                          checked={field.value.includes(shape)}
                          onChange={(event) => field.onChange(event.target.checked ? [...field.value, shape] : field.value.filter((one) => one !== shape))}
                        />
                        {SHAPE_NAMES[shape]}
                      </label>
                    ))}
                  </div>
                )}
              </Field>
            )}
          />
        </div>
        {theirs === null ? (
          <FormTrouble error={error} />
        ) : (
          <StaleChoice
            what={t('clients.this-profile')}
            changed={differences<PlatformProfileForm>(theirs, getValues(), PLATFORM_NAMES)}
            onTake={() => {
              const { id: ___, version, ...now } = theirs;
              seen.current = version;
              reset(now);
              updating.reset();
            }}
            onKeep={() => {
              seen.current = theirs.version;
              submit().catch(() => undefined);
            }}
          />
        )}
        <DialogFoot>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button tone="fill" type="submit" disabled={creating.isLoading || updating.isLoading}>
            {t('clients.save-the-profile')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
