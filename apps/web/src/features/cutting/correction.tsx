import { type ReactNode, useState } from 'react';
import { t } from '../../texts/texts.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { TextField } from '../../ui/fields.js';
import { Button } from '../../ui/parts.js';

interface CorrectionProps {
  word: number;
  /** As the transcript has it. */
  said: string;
  /** As it reads now. */
  text: string;
  onCorrect: (text: string) => void;
  onClose: () => void;
}

/** How one word reads: its time stays. */
export function Correction({ word, said, text, onCorrect, onClose }: CorrectionProps): ReactNode {
  const [typed, setTyped] = useState(text);
  const done = (next: string): void => {
    onClose();
    const tidy = next.trim().replace(/\s+/g, ' ');
    if (tidy !== text) onCorrect(tidy);
  };
  return (
    <Dialog open onClose={onClose} title={t('cutting.correct-what', { word: said })}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          done(typed);
        }}
      >
        <TextField
          key={word}
          label={t('cutting.reads')}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          maxLength={80}
          autoFocus
          hint={t('cutting.correct-hint')}
        />
        <DialogFoot>
          {text !== said && (
            <Button tone="quiet" onClick={() => done(said)}>
              {t('cutting.as-it-was-heard')}
            </Button>
          )}
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button tone="fill" type="submit">
            {t('cutting.correct')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
