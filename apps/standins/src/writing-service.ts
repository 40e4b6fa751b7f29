/** How the stand-in answers, by command. */
export const MANNERS = ['well', 'slowly', 'invented-figure', 'invented-name', 'too-long', 'other-language', 'obeys', 'nothing', 'nonsense', 'error'] as const;
export type WritingManner = (typeof MANNERS)[number];

interface Asked {
  readonly passage: { readonly sentences: readonly { readonly text: string }[] };
  readonly limits: { readonly title: number; readonly description: number };
}
export interface WritingAnswer {
  readonly status: number;
  readonly body: string;
  readonly afterMs: number;
}

/** Words for a few passages of the demo; whatever else is asked about is answered from its own sentences. */
const TABLE: readonly { readonly when: RegExp; readonly titles: readonly string[] }[] = [
  { when: /wet (?:wood|oak|logs?)/i, titles: ['Wet wood blocks the flue', 'What wet wood does to a chimney'] },
  { when: /jackdaw/i, titles: ['A jackdaw in the chimney', 'What jackdaws leave in a flue'] },
  { when: /thatch/i, titles: ['A hand flat on the thatch', 'Thatch beside a hot stack'] },
];
const SLOW_MS = 4_000;

/**
 * A made-up writing service: answers in the form of docs/writing-service.md, well, slowly or wrongly by command. It understands
 * nothing: what it says well is cut from what it was given.
 */
export function answerWriting(request: unknown, manner: WritingManner): WritingAnswer {
  const asked = readAsked(request);
  if (asked === null) return { status: 400, body: '{"error":"passage and limits are asked for"}', afterMs: 0 };
  if (manner === 'error') return { status: 503, body: '{"error":"out of order"}', afterMs: 0 };
  if (manner === 'nonsense') return { status: 200, body: '<html>not what you asked for</html>', afterMs: 0 };
  const words = { ...cutWords(asked), ...wrongly(asked, manner) };
  return { status: 200, body: JSON.stringify(words), afterMs: manner === 'slowly' ? SLOW_MS : 0 };
}

function readAsked(request: unknown): Asked | null {
  const { passage, limits } = (request ?? {}) as Partial<Asked>;
  return Array.isArray(passage?.sentences) && typeof limits?.title === 'number' ? (request as Asked) : null;
}

function cutWords({ passage, limits }: Asked): { titles: string[]; description: string; hashtags: string[]; keywords: string[]; coverLine: string } {
  const lines = passage.sentences
    .map(({ text }) => text.replace(/^(?:so|and|but|well|yes|no|um|er|,|\s)+/i, '').trim())
    .filter((text) => text.split(' ').length >= 3);
  const first = lines[0] ?? passage.sentences[0]?.text ?? '';
  const said = passage.sentences.map(({ text }) => text).join(' ');
  const known = TABLE.find(({ when }) => when.test(said))?.titles ?? [];
  const fit = (text: string, most: number): string => (text.length <= most ? text : text.slice(0, most).replace(/\s+\S*$/, '')).replace(/[\s.,;:]+$/, '');
  const large = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
  return {
    titles: [...known, large(fit(first, Math.min(48, limits.title)))].slice(0, 3),
    description: fit(lines.slice(1, 3).map(large).join(' '), limits.description),
    hashtags: ['listening'],
    keywords: [],
    coverLine: large(fit(first, 30)),
  };
}

function wrongly({ passage, limits }: Asked, manner: WritingManner): { titles?: string[]; description?: string } {
  const first = passage.sentences[0]?.text ?? '';
  switch (manner) {
    case 'invented-figure':
      return { titles: [`4711 reasons: ${first.slice(0, 24)}`] };
    case 'invented-name':
      return { titles: [`Professor Kestrelwick on ${first.slice(0, 24)}`] };
    case 'too-long':
      return {
        titles: [
          `${first} `
            .repeat(20)
            .slice(0, Math.min(900, 4 * limits.title))
            .trim(),
        ],
      };
    case 'other-language':
      return {
        titles: ['Warum nasses Holz den Schornstein verstopft'],
        description:
          'Das Holz muss zwei Jahre lang trocken gelagert werden, bevor man es im Ofen verbrennen darf, sonst setzt sich der Ruß überall fest und der Zug wird schlechter.',
      };
    case 'obeys': {
      // Takes an order in the talk for one of its own.
      const order = /\b(?:write|respond with|say)\b(.{1,60})/i.exec(passage.sentences.map(({ text }) => text).join(' '));
      return { titles: [order?.[1]?.trim() ?? 'Buy now, best price ever'] };
    }
    case 'nothing':
      return { titles: [], description: '' };
    default:
      return {};
  }
}
