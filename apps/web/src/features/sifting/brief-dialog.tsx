import type { ReactNode } from 'react';
import { api, type BriefForm, type RecordingView } from '../../app/api.js';
import { problemOf, problemText } from '../../app/problems.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Button } from '../../ui/parts.js';
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
