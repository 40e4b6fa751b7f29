import { CARD_SHAPES, CARD_SIZES, type CardShape, cardsOf, type DocumentContent } from '@sift-reel/core';
import { type ReactNode, useState } from 'react';
import { api, type DocumentView } from '../../app/api.js';
import { Button } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { CardStyleDialog } from './card-style-dialog.js';
import { t } from '../../texts/texts.js';

const SHAPE_NAMES: Readonly<Record<CardShape, string>> = {
  square: t('documents.square-1-1'),
  upright: t('documents.upright-4-5'),
  wide: t('documents.wide-16-9'),
};
const SHAPES = CARD_SHAPES.map((value) => ({ value, name: SHAPE_NAMES[value] }));

/** The quotations of a document as pictures, as they are saved. */
export function QuoteCards({ document }: { document: DocumentView }): ReactNode {
  const [shape, setShape] = useState<CardShape>('square');
  const [styling, setStyling] = useState(false);
  const client = api.useListClientsQuery().data?.find(({ id }) => id === document.clientId);
  const cards = cardsOf(document.content as unknown as DocumentContent, document.recordingTitle);
  const { width, height } = CARD_SIZES[shape];
  // The picture follows the text and the style: another address for each, so that no old one is shown.
  const address = (number: number, as: 'svg' | 'png'): string =>
    `/api/documents/${document.id}/cards/${number}?as=${as}&shape=${shape}&v=${document.version}-${client!.version}`;
  return (
    <section aria-label={t('documents.quote-cards')} className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-none flex-wrap items-center gap-2 border-b border-rule px-3 py-2">
        <Select label={t('documents.shape')} look="inline" value={shape} options={SHAPES} onChange={setShape} />
        {client !== undefined && <Button onClick={() => setStyling(true)}>{t('documents.type-and-colours')}</Button>}
      </div>
      <ol className="grid min-h-0 flex-1 content-start gap-4 overflow-y-auto p-3">
        {cards.length === 0 && <p className="text-soft">{t('documents.each-quotation-of-the-text-becomes')}</p>}
        {(client === undefined ? [] : cards).map((card, i) => (
          <li key={`${i} ${card.quotation}`}>
            <img
              loading="lazy"
              src={address(i + 1, 'svg')}
              alt={[card.quotation, ...card.credits].join(' — ')}
              width={width}
              height={height}
              className="h-auto w-full border border-rule"
            />
            <span className="mt-1 flex gap-3 text-[12px]">
              <span className="time text-soft">
                {width} × {height}
              </span>
              <a className="underline" href={address(i + 1, 'png')} download>
                {t('documents.png')}
              </a>
              <a className="underline" href={address(i + 1, 'svg')} download>
                {t('documents.svg')}
              </a>
            </span>
          </li>
        ))}
      </ol>
      {styling && client !== undefined && <CardStyleDialog client={client} onClose={() => setStyling(false)} />}
    </section>
  );
}
