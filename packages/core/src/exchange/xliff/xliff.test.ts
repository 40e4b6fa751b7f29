import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkTranslation } from '../../copy/translation/check-translation.js';
import { captionLimit, runsOf, type TextUnit, translatedCopy, unitsOf } from '../../copy/translation/units.js';
import { readXliff, textOfRuns } from './read-xliff.js';
import { XliffRefusedError } from './types.js';
import { writeXliff } from './write-xliff.js';

const COPY = { title: 'Wet wood & tar', description: 'It costs 240 euro.', coverLine: '', hashtags: ['firewood', 'wetwood'], keywords: [] };
const CAPTIONS = [
  { startMs: 0, endMs: 2_000, text: 'The chimney is cold. [laughter]' },
  { startMs: 2_000, endMs: 3_000, text: 'Wait for 30 seconds.' },
];
const UNITS = unitsOf(COPY, { title: 60, description: 300, hashtags: 5 }, CAPTIONS);
const job = (targets: Record<string, string> = {}, units: readonly TextUnit[] = UNITS, read = false) =>
  writeXliff({ id: 's1', title: 'Up the flue', sourceLanguage: 'en', targetLanguage: 'es', units, targets, read });
const xliff = (inside: string, attributes = 'version="2.1" srcLang="en" trgLang="es"') =>
  `<?xml version="1.0"?>\n<xliff xmlns="urn:oasis:names:tc:xliff:document:2.0" ${attributes}>\n${inside}\n</xliff>`;

describe('what is translated of a short', () => {
  it('is each field that is filled, and each caption with the characters that its time allows', () =>
    expect(UNITS.map(({ id, limit }) => [id, limit])).toEqual([
      ['title', 60],
      ['description', 300],
      ['hashtags', null],
      ['caption-1', 34],
      ['caption-2', 17],
    ]));
  it('becomes words again', () =>
    expect(translatedCopy({ title: 'Leña', hashtags: '#leña mojada, brea', keywords: 'leña，brea' })).toEqual({
      title: 'Leña',
      description: '',
      coverLine: '',
      hashtags: ['leñamojada', 'brea'],
      keywords: ['leña', 'brea'],
    }));
  it('is set apart where it is heard and not said', () =>
    expect(runsOf('So [laughter] it ♪music♪ goes')).toEqual([
      { text: 'So ', emphasis: false },
      { text: '[laughter]', emphasis: true },
      { text: ' it ', emphasis: false },
      { text: '♪music♪', emphasis: true },
      { text: ' goes', emphasis: false },
    ]));
});

describe('a translation is checked', () => {
  const whole = {
    title: 'Leña mojada',
    description: 'Cuesta 240 euros.',
    hashtags: 'leña',
    'caption-1': 'La chimenea está fría. [risas]',
    'caption-2': 'Espera 30 s.',
  };
  const rules = (targets: Record<string, string>) => checkTranslation(UNITS, { ...whole, ...targets }).map(({ unit, rule }) => `${unit} ${rule}`);
  it('and is whole', () => expect(rules({})).toEqual([]));
  it.each([
    [{ title: ' ' }, ['title missing']],
    [{ title: 'x'.repeat(61) }, ['title too-long']],
    [{ 'caption-2': 'Espera unos 30 segundos.' }, ['caption-2 too-fast']],
    [{ description: 'Cuesta 420 euros.' }, ['description numbers']],
    [{ description: 'Cuesta mucho.' }, ['description numbers']],
    [{ title: 'Leña 2' }, ['title numbers']],
    [{ 'caption-1': 'La chimenea está fría.' }, ['caption-1 sounds']],
  ])('%j', (targets, found) => expect(rules(targets as Record<string, string>)).toEqual(found));
  it('by characters as they are seen (UAX 29), and numbers however they are grouped', () => {
    const unit = (source: string, limit: number | null = null): TextUnit => ({ id: 'u', name: 'U', source, limit, time: null });
    expect(checkTranslation([unit('a', 1)], { u: '👩‍👩‍👧' })).toEqual([]);
    expect(checkTranslation([unit('1,500 in 3.5')], { u: '1.500 en 3,5' })).toEqual([]);
    expect(checkTranslation([unit('1,500')], { u: '1\u202f500' })).toEqual([]);
  });
  // 17 characters a second: 100 ms hold one, a second 17.
  it.each([
    [100, 1],
    [1_000, 17],
    [59, 1],
  ])('a caption of %i ms takes %i characters', (ms, most) => expect(captionLimit({ startMs: 0, endMs: ms })).toBe(most));
});

describe('XLIFF', () => {
  it('goes out with times and limits as notes, and as the size restriction module says', () => {
    const text = job({ title: 'Leña' });
    expect(text).toContain(
      '<xliff xmlns="urn:oasis:names:tc:xliff:document:2.0" xmlns:slr="urn:oasis:names:tc:xliff:sizerestriction:2.0" version="2.1" srcLang="en" trgLang="es">',
    );
    expect(text).toContain('<unit id="caption-2" name="Caption 2" slr:sizeRestriction="17">');
    expect(text).toContain('<note category="time">00:00:02.000 --&gt; 00:00:03.000</note>');
    expect(text).toContain('<source xml:space="preserve">The chimney is cold. <pc id="1" type="fmt" subType="xlf:i">[laughter]</pc></source>');
    expect(text).toContain(
      '<segment state="translated">\n          <source xml:space="preserve">Wet wood &amp; tar</source>\n          <target xml:space="preserve">Leña</target>',
    );
    expect(job({ title: 'Leña' }, UNITS, true)).toContain('state="reviewed"');
  });
  it('comes back as it went out, whatever it holds', () => {
    // All that a text may hold: no halves of pairs, and no white space that is not a space.
    const texts = fc
      .string({ unit: 'grapheme', minLength: 1, maxLength: 40 })
      .map((one) => one.replace(/\s+/g, ' ').trim())
      .filter((one) => one !== '');
    fc.assert(
      fc.property(fc.array(fc.tuple(texts, texts), { minLength: 1, maxLength: 6 }), (pairs) => {
        const units = pairs.map(([source], i) => ({ id: `caption-${i + 1}`, name: 'C', source, limit: null, time: { startMs: 0, endMs: 1 } }));
        const targets = Object.fromEntries(pairs.map(([, target], i) => [`caption-${i + 1}`, target]));
        const back = readXliff(job(targets, units));
        expect(back).toMatchObject({ id: 's1', sourceLanguage: 'en', targetLanguage: 'es' });
        expect(back.units.map(({ source }) => textOfRuns(source, true))).toEqual(pairs.map(([source]) => source));
        expect(back.units.map(({ target }) => textOfRuns(target!, true))).toEqual(pairs.map(([, target]) => target));
      }),
    );
  });
  // Shapes as in the standard and its test suite, from memory: segments with what stands between them, spanning codes that begin
  // and end apart, markers, placeholders, code points that XML cannot hold, notes and a module that is not known.
  it('is read as the standard has it', () => {
    const { units } = readXliff(
      xliff(`<file id="f1"><skeleton href="s.skl"/><notes><note>of the file</note></notes>
  <mda:metadata xmlns:mda="urn:oasis:names:tc:xliff:metadata:2.0"><mda:metaGroup><mda:meta type="a">source</mda:meta></mda:metaGroup></mda:metadata>
  <group id="g1"><group id="g2"><unit id="u1"><originalData><data id="d1">&lt;b&gt;</data></originalData>
    <segment><source>One.</source><target>Uno.</target></segment><ignorable><source> </source><target> </target></ignorable>
    <segment state="final"><source>Two <pc id="1">strong</pc>.</source><target>Dos <sc id="1"/>fuertes<ec startRef="1"/>.</target></segment></unit></group></group>
  <unit id="u2"><notes><note appliesTo="source">n</note></notes><segment><source><mrk id="m1" type="term">Te</mrk>rm<ph id="2" dataRef="d1"/><cp hex="0007"/></source></segment></unit>
  <unit id="u3"><segment><source><![CDATA[a < b & c]]></source><target></target></segment></unit></file>`),
    );
    expect(units.map(({ id, line }) => [id, line])).toEqual([
      ['u1', 5],
      ['u2', 8],
      ['u3', 9],
    ]);
    expect(units[0]!.target).toEqual([
      { text: 'Uno. Dos ', emphasis: false },
      { text: 'fuertes', emphasis: true },
      { text: '.', emphasis: false },
    ]);
    expect(units[1]!.source).toEqual([{ text: 'Term\u0007', emphasis: false }]);
    expect(units[1]!.target).toBeNull();
    expect(units[2]).toMatchObject({ source: [{ text: 'a < b & c', emphasis: false }], target: [] });
  });
  it('gives a sound its brackets back where a tool kept the code alone', () =>
    expect(
      textOfRuns(
        [
          { text: 'Sí. ', emphasis: false },
          { text: 'risas', emphasis: true },
        ],
        true,
      ),
    ).toBe('Sí. [risas]'));
  it.each<[string, string, number, string]>([
    ['not xml', 'nonsense', 1, 'bad-xml'],
    ['no end', xliff('<file id="f">'), 4, 'bad-xml'],
    ['html', '<html></html>', 1, 'not-xliff'],
    ['XLIFF 1.2', '<xliff xmlns="urn:oasis:names:tc:xliff:document:1.2" version="1.2"/>', 1, 'not-xliff'],
    ['another version', xliff('', 'version="3.0" srcLang="en" trgLang="es"'), 2, 'bad-version'],
    ['no language', xliff('', 'version="2.1" srcLang="en"'), 2, 'no-language'],
    ['no file', xliff(''), 1, 'no-file'],
    ['a unit twice', xliff('<file id="f">\n<unit id="a"/>\n<unit id="a"/></file>'), 5, 'twice'],
    ['a unit without id', xliff('<file id="f">\n<unit/></file>'), 4, 'no-id'],
    ['an entity from elsewhere', '<!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/passwd">]><xliff>&e;</xliff>', 1, 'bad-xml'],
    ['a bomb of entities', `<?xml version="1.0"?><!DOCTYPE l [<!ENTITY a "ha"><!ENTITY b "&a;&a;">]><l>&b;</l>`, 1, 'bad-xml'],
    ['much too much', 'x'.repeat(2_000_001), 1, 'too-long'],
  ])('is refused with its line: %s', (_, text, line, code) => {
    try {
      readXliff(text);
      expect.unreachable();
    } catch (error) {
      expect(error).toBeInstanceOf(XliffRefusedError);
      expect(error).toMatchObject({ line, code });
    }
  });
});
