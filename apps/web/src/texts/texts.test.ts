// @vitest-environment jsdom
import { isArgumentElement, isPluralElement, isSelectElement, isTagElement, type MessageFormatElement, parse } from '@formatjs/icu-messageformat-parser';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { getMetadataStorage } from 'class-validator';
import * as forms from '@sift-reel/forms';
import ts from 'typescript';
import { afterEach, describe, expect, test, vi } from 'vitest';
import english from './en.json';
import { fieldProblem } from './field-problems.js';
import { formatDay, formatNumber, timeLeft, weekdayName } from './formats.js';
import spanish from './es.json';
import { LANGUAGES, rich, t, takeTexts, wishedLanguage } from './texts.js';

afterEach(async () => {
  localStorage.clear();
  await takeTexts('en');
});

/** Names of what a text takes: values, plurals, choices, tags. */
function takes(text: string): string[] {
  const names = new Set<string>();
  const walk = (elements: readonly MessageFormatElement[]): void => {
    for (const one of elements) {
      if ('value' in one && one.type !== 0) names.add(one.value);
      if (isPluralElement(one) || isSelectElement(one)) Object.values(one.options).forEach((option) => walk(option.value));
      if (isTagElement(one)) walk(one.children);
      if (isArgumentElement(one)) names.add(one.value);
    }
  };
  walk(parse(text));
  return [...names].filter((name) => name !== '').sort();
}

describe('every language', () => {
  for (const tag of Object.keys(LANGUAGES) as (keyof typeof LANGUAGES)[])
    test(`${tag} has every text, with the values and the marks of the English one`, async () => {
      const texts = await LANGUAGES[tag].load();
      expect(Object.keys(texts).sort()).toEqual(Object.keys(english).sort());
      for (const [id, text] of Object.entries(texts)) expect([id, takes(text)]).toEqual([id, takes(english[id as keyof typeof english])]);
    });

  test('Spanish is Spanish: of the texts with three words and more, none is as in English', () => {
    const same = Object.entries(spanish).filter(([id, text]) => /\w+ \w+ \w+/.test(text) && text === english[id as keyof typeof english]);
    expect(same).toEqual([]);
  });
});

interface Use {
  readonly where: string;
  readonly id: string;
  /** Of the object beside it; null where it is not written out. */
  readonly given: readonly string[] | null;
}

/** All ids and calls of `t` and `rich` in the sources, read by the TypeScript compiler's own parser. */
function uses(): { calls: Use[]; strings: ReadonlySet<string> } {
  const root = join(import.meta.dirname, '..');
  const calls: Use[] = [];
  const strings = new Set<string>();
  for (const file of readdirSync(root, { recursive: true, encoding: 'utf8' }).filter((name) => /\.tsx?$/.test(name) && !/\.(?:test|fixture)\./.test(name))) {
    const source = ts.createSourceFile(file, readFileSync(join(root, file), 'utf8'), ts.ScriptTarget.Latest, true);
    const walk = (node: ts.Node): void => {
      if (ts.isStringLiteral(node)) strings.add(node.text);
      if (ts.isCallExpression(node) && ts.isIdentifier(node.expression) && /^(?:t|rich)$/.test(node.expression.text)) {
        const [first, second] = node.arguments;
        const ids = first === undefined ? [] : ts.isConditionalExpression(first) ? [first.whenTrue, first.whenFalse] : [first];
        const given =
          second === undefined
            ? []
            : ts.isObjectLiteralExpression(second)
              ? second.properties.map((one) => (one.name === undefined ? '' : one.name.getText(source))).sort()
              : null;
        const { line } = source.getLineAndCharacterOfPosition(node.getStart(source));
        for (const id of ids) if (ts.isStringLiteral(id)) calls.push({ where: `${file}:${line + 1}`, id: id.text, given });
      }
      ts.forEachChild(node, walk);
    };
    walk(source);
  }
  return { calls, strings };
}

describe('the screens', () => {
  const { calls, strings } = uses();

  test('give every text what it takes', () => {
    expect(calls.length).toBeGreaterThan(900);
    const wrong = calls.filter(
      ({ id, given }) => !(id in english) || (given !== null && takes(english[id as keyof typeof english]).some((name) => !given.includes(name))),
    );
    expect(wrong).toEqual([]);
  });

  test('use every text; only the words of the trail come from the server', () => {
    expect(Object.keys(english).filter((id) => !id.startsWith('trail.') && !strings.has(id))).toEqual([]);
  });
});

describe('a text', () => {
  test('counts as its language does', async () => {
    expect([1, 2].map((count) => t('planning.placed-posts', { count }))).toEqual(['Placed 1 post', 'Placed 2 posts']);
    await takeTexts('es');
    expect([1, 2].map((count) => t('planning.placed-posts', { count }))).toEqual(['Colocada 1 publicación', 'Colocadas 2 publicaciones']);
  });

  test('orders in words to ten, then in figures', () => {
    const rank = (n: number): string => t('sifting.rank-of', { own: 'false', rank: n, total: 150, length: '0:40' });
    expect([1, 10, 11, 21, 22, 103, 112].map((n) => rank(n).split(' ')[0])).toEqual(['first', 'tenth', '11th', '21st', '22nd', '103rd', '112th']);
  });

  test('takes elements for its marks, and never markup from a value', () => {
    const parts = rich('planning.best-open-slot', { name: '<b>x</b>', day: 'Mon', minute: '07:30', b: (chunks) => chunks });
    expect(JSON.stringify(parts)).toContain('<b>x</b>, Mon 07:30');
  });

  test('that lacks a value is an error, not half a sentence', () => {
    expect(() => t('planning.placed-posts')).toThrow(/count/);
  });
});

describe('the language', () => {
  test('is what was chosen here, else the browser’s, else English', () => {
    expect(wishedLanguage()).toBe('en');
    localStorage.setItem('sift-reel-language', 'es');
    expect(wishedLanguage()).toBe('es');
    localStorage.setItem('sift-reel-language', 'tlh');
    expect(wishedLanguage()).toBe('en');
  });

  test('is English where the file of another does not come', async () => {
    vi.spyOn(LANGUAGES.es, 'load').mockRejectedValueOnce(new Error('no line'));
    await takeTexts('es');
    expect([t('common.cancel'), document.documentElement.lang]).toEqual(['Cancel', 'en']);
  });

  test('is told to screen readers and hyphenation', async () => {
    await takeTexts('es');
    expect(document.documentElement.lang).toBe('es');
  });

  // Forms of CLDR (Unicode), as Intl of this Node has them.
  test('writes days, numbers and times left', async () => {
    expect([formatDay('2026-03-26'), weekdayName(1), formatNumber(12_345), timeLeft(59_001), timeLeft(60_001)]).toEqual([
      'Thu 26 Mar',
      'Monday',
      '12,345',
      '60 s',
      '2 min',
    ]);
    await takeTexts('es');
    expect([formatDay('2026-03-26'), weekdayName(1), formatNumber(12_345)]).toEqual(['jue 26 mar', 'lunes', '12.345']);
  });
});

describe('what is wrong with a field', () => {
  /** Every message that any form of ours can give. */
  const messages = [...new Set(forms.declaredFields.map(({ target }) => target.constructor))].flatMap((form) =>
    getMetadataStorage()
      .getTargetValidationMetadatas(form, '', true, false)
      .flatMap(({ message }) => (typeof message === 'string' ? message : [])),
  );

  test('is said in the language of the screen, whatever form it is of', async () => {
    expect(messages.length).toBeGreaterThan(300);
    await takeTexts('es');
    expect([...new Set(messages)].filter((message) => fieldProblem(message).toLowerCase() === message.toLowerCase())).toEqual([]);
    expect(fieldProblem('must be from 1 to 100')).toBe('Debe estar entre 1 y 100');
  });

  test('stays as it was said where it is not known, and in English', async () => {
    expect(fieldProblem('must be text')).toBe('Must be text');
    await takeTexts('es');
    expect(fieldProblem('is taken')).toBe('Is taken');
  });
});
