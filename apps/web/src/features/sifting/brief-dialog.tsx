import { formatTimecode } from '@sift-reel/core';
import type { ReactNode } from 'react';
import type { UseFormSetValue } from 'react-hook-form';
import { api, type BriefForm, type RecordingView } from '../../app/api.js';
import { problemOf, problemText } from '../../app/problems.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Button } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { BriefFields, useBriefForm } from './brief-form.js';
import { t } from '../../texts/texts.js';

/** Briefs a recording and starts its sift. Earlier sifts stay. */
export function BriefDialog({
  recording,
  start,
  onClose,
  onStarted,
}: {
  recording: RecordingView;
  start: BriefForm;
  onClose: () => void;
  onStarted: (siftId: string) => void;
}): ReactNode {
  const [startSift, { error, isLoading }] = api.useStartSiftMutation();
  const { control, setValue, handleSubmit, formState } = useBriefForm(start);
  const refused = Object.fromEntries((problemOf(error)?.errors ?? []).map(({ field, detail }) => [field, detail]));
  const submit = handleSubmit(async (briefForm) => {
    const sift = await startSift({ recordingId: recording.id, briefForm }).unwrap();
    onStarted(sift.id);
  });
  return (
    <Dialog open onClose={onClose} title={t('sifting.brief-for', { title: recording.title })} wide>
      <form
        onSubmit={(event) => {
          submit(event).catch(() => undefined);
        }}
        noValidate
      >
        <Chapters recording={recording} setValue={setValue} />
        <BriefFields control={control} setValue={setValue} errors={formState.errors} refused={refused} />
        {error !== undefined && Object.keys(refused).length === 0 && (
          <p role="alert" className="mt-3 border-l-4 border-madder bg-sheet px-3 py-2">
            {problemText(error)}
          </p>
        )}
        <DialogFoot>
          <span className="mr-auto text-[12px] text-soft">{t('sifting.runs-in-the-background-earlier-sifts')}</span>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button tone="fill" type="submit" disabled={isLoading}>
            {t('sifting.sift-the-recording')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}

/** Chapters as the feed gave them: one of them is the part that counts. */
function Chapters({ recording: { origin, durationMs }, setValue }: { recording: RecordingView; setValue: UseFormSetValue<BriefForm> }): ReactNode {
  const chapters = origin?.chapters ?? [];
  if (chapters.length < 2) return null;
  const options = chapters.map(({ startMs, title }, i) => ({ value: String(i), name: `${formatTimecode(startMs)}  ${title}` }));
  return (
    <div className="mb-4">
      <Select
        look="field"
        label={t('sifting.a-chapter-of-the-feed')}
        value=""
        options={[{ value: '', name: t('sifting.choose-a-chapter') }, ...options]}
        hint={t('sifting.fills-in-the-part')}
        onChange={(value) => {
          const chosen = value === '' ? undefined : chapters[Number(value)];
          if (chosen === undefined) return;
          const next = chapters[Number(value) + 1]?.startMs ?? null;
          setValue('partStartMs', chosen.startMs, { shouldDirty: true, shouldValidate: true });
          setValue('partEndMs', next === null || next > (durationMs ?? next) ? null : next, { shouldDirty: true, shouldValidate: true });
        }}
      />
    </div>
  );
}
