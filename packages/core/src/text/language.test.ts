import { describe, expect, it } from 'vitest';
import { DEMO_TALKS, demoTranscript, toVtt, transcriptOf } from '../talk.fixture.js';
import { findLanguage } from './language.js';

const of = (text: string): string | null => findLanguage(transcriptOf(toVtt([{ text }])).words)?.name ?? null;

// The first article of the Universal Declaration of Human Rights (United Nations 1948), in the official translations, from memory.
const FIRST_ARTICLE = {
  German:
    'Alle Menschen sind frei und gleich an Würde und Rechten geboren. Sie sind mit Vernunft und Gewissen begabt und sollen einander im Geist der Brüderlichkeit begegnen.',
  Spanish:
    'Todos los seres humanos nacen libres e iguales en dignidad y derechos y, dotados como están de razón y conciencia, deben comportarse fraternalmente los unos con los otros.',
  French:
    'Tous les êtres humains naissent libres et égaux en dignité et en droits. Ils sont doués de raison et de conscience et doivent agir les uns envers les autres dans un esprit de fraternité.',
  Italian:
    'Tutti gli esseri umani nascono liberi ed eguali in dignità e diritti. Essi sono dotati di ragione e di coscienza e devono agire gli uni verso gli altri in spirito di fratellanza.',
  Arabic: 'يولد جميع الناس أحرارا متساوين في الكرامة والحقوق. وقد وهبوا عقلا وضميرا وعليهم أن يعامل بعضهم بعضا بروح الإخاء. يولد جميع الناس أحرارا متساوين.',
} as const;

describe('findLanguage', () => {
  it.each(Object.entries(FIRST_ARTICLE))('knows %s', (name, text) => expect(of(text)).toBe(name));
  it('takes English, and what is too short to tell, for English', () => {
    expect(
      of(
        'All human beings are born free and equal in dignity and rights. They are endowed with reason and conscience and should act towards one another in a spirit of brotherhood.',
      ),
    ).toBeNull();
    expect(of('Guten Abend.')).toBeNull();
    expect(findLanguage([])).toBeNull();
  });
  it.each(DEMO_TALKS)('finds %s English', (name) => expect(findLanguage(demoTranscript(name).words)).toBeNull());
  it('is not led astray by a greeting in another language', () => {
    const { words } = demoTranscript('up-the-flue-12');
    const hello = transcriptOf(toVtt([{ text: 'Guten Abend zusammen, schön, dass so viele von Ihnen heute da sind, wir fangen gleich an.' }])).words;
    expect(findLanguage([...hello, ...words])).toBeNull();
  });
});
