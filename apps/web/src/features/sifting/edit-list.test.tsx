// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { EditListPassageView } from '../../app/api.js';
import { type Answers, onScreens, Refusal, show } from '../../app/screen.fixture.js';
import { store } from '../../app/store.js';
import { EditListDialog } from './edit-list-dialog.js';

onScreens();

const passage = (title: string, fields: Partial<EditListPassageView> = {}): EditListPassageView => ({
  title,
  startMs: 61_000,
  endMs: 95_000,
  spans: 2,
  passage: {
    firstWord: 10,
    endWord: 60,
    edit: { removed: [{ firstWord: 20, endWord: 24 }], pauses: [], corrected: [], before: [], after: [] },
    playedMs: 31_000,
    said: 'Why should you buy',
  },
  offMs: 0,
  kept: false,
  problem: null,
  ...fields,
});
const [READ, KEEP] = ['POST api/sifts/s1/edit-list', 'POST api/sifts/s1/passages'];
const LIST = new File(['TITLE: x'], 'cut.edl', { type: 'text/plain' });

function dialog(answers: Answers) {
  const onClose = vi.fn();
  const { user, asked } = show(<EditListDialog siftId="s1" onClose={onClose} />, answers);
  return { onClose, asked, bring: () => user.upload(screen.getByTestId('edit-list'), LIST), user };
}

describe('an edit list that is brought in', () => {
  it('is shown first; what is ticked is kept, under the titles that were given', async () => {
    const bad = passage('Late', { passage: null, problem: 'beyond-the-end' });
    const passages = [passage('Logs'), passage('Tar', { offMs: 240 }), bad, passage('Old', { kept: true })];
    const { user, asked, bring, onClose } = dialog({ [READ]: { passages }, [KEEP]: [{ id: 'a' }] });
    expect(screen.getByRole('button', { name: 'Nothing to keep' })).toBeDisabled();
    await bring();
    const rows = await screen.findAllByTestId('edit-list-passage');
    expect(rows.map((row) => row.textContent)).toEqual([
      expect.stringMatching(/01:01 – 01:35.*0:31 · 2 spans.*Why should you buy.*The same frames/),
      expect.stringMatching(/by 0\.24 s at most/),
      expect.stringMatching(/after the end of the recording/),
      expect.stringMatching(/Kept already\./),
    ]);
    expect(asked.at(-1)!.body).toEqual({ name: 'cut.edl', text: 'TITLE: x', asOne: false });
    expect(within(rows[2]!).getByRole('checkbox')).toBeDisabled();
    expect(within(rows[3]!).getByRole('checkbox')).not.toBeChecked();
    await user.click(screen.getByRole('checkbox', { name: 'Take passage 2' }));
    await user.clear(screen.getByRole('textbox', { name: 'Title of passage 1' }));
    await user.type(screen.getByRole('textbox', { name: 'Title of passage 1' }), 'Buy in March');
    await user.click(screen.getByRole('button', { name: 'Keep it as a short' }));
    await vi.waitFor(() => expect(onClose).toHaveBeenCalled());
    const { firstWord, endWord, edit } = passages[0]!.passage!;
    expect(asked.at(-1)!.body).toEqual({ passages: [{ title: 'Buy in March', firstWord, endWord, edit }] });
    expect(store.getState().notices.map(({ text }) => text)).toEqual(['Kept one passage of the edit list']);
  });
  it('is read anew as one short, and says what it cannot be read for', async () => {
    const answers: Answers = { [READ]: { passages: [passage('A'), passage('B')] } };
    const { user, asked, bring, onClose } = dialog(answers);
    await bring();
    await screen.findByRole('button', { name: 'Keep 2 as shorts' });
    answers[READ] = new Refusal(422, 'cut.edl, line 3: ends before it starts.');
    await user.click(screen.getByRole('checkbox', { name: 'All of it is one short' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('cut.edl, line 3: ends before it starts.');
    expect(asked.at(-1)!.body).toMatchObject({ asOne: true });
    expect(screen.queryByTestId('edit-list-passage')).toBeNull();
    expect(screen.getByRole('button', { name: 'Nothing to keep' })).toBeDisabled();
    expect(onClose).not.toHaveBeenCalled();
  });
});
