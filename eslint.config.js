import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import tseslint from 'typescript-eslint';

/** What the computation must not know: servers, screens, files, clocks, chance. */
const CORE_IMPORTS = [
  'node:*',
  'fs',
  'path',
  'os',
  'crypto',
  'worker_threads',
  '@nestjs/*',
  'sequelize*',
  'pg*',
  'react*',
  '@reduxjs/*',
  'class-validator',
  'class-transformer',
  '@sift-reel/*',
];
const CLOCK_AND_CHANCE = [
  { selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']", message: 'The core has no clock: take the time as an argument.' },
  { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'The core has no clock: take the time as an argument.' },
  { selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']", message: 'The core has no chance: same input, same output.' },
  { selector: "MemberExpression[object.name='performance']", message: 'The core has no clock.' },
];
const PLATFORM_GLOBALS = ['process', 'window', 'document', 'fetch', 'localStorage', 'setTimeout', 'setInterval', 'Buffer', 'XMLHttpRequest'];

const SAID_IN_TEXTS = 'What a screen says stands in texts/en.json, and in every other language beside it: t(…), rich(…).';
const SHOWN_ATTRIBUTES = ['alt', 'aria-label', 'aside', 'deed', 'detail', 'empty', 'hint', 'keep', 'label', 'placeholder', 'safe', 'title', 'what'];

const FEATURES = ['clients', 'desk', 'documents', 'identity', 'planning', 'recordings', 'shorts', 'sifting'];
/** A feature folder never reaches into another feature's inside; these are what a feature offers to others. */
const OFFERED = { recordings: ['episode-row'], sifting: ['brief-form', 'bench-page', 'bench-slice'], planning: ['schedule-page', 'schedule-slice'] };

/**
 * Folders of the server, each knowing those before it only: so there is no circle. `clients` to `planning` are the features in
 * the order of the work; what stands beside the folders (`models`, `start-part`, the modules) knows all.
 */
const SERVER_ORDER = [
  'config',
  'problems',
  'database',
  'fetching',
  'text',
  'media',
  'audit',
  'identity',
  'jobs',
  'health',
  'clients',
  'recordings',
  'preparing',
  'sifting',
  'shorts',
  'aligning',
  'feeds',
  'documents',
  'rendering',
  'writing',
  'planning',
  'publishing',
  'api',
];

const ON_WHOLE_TRANSCRIPTS = [
  'alignWords',
  'bestAround',
  'buildReel',
  'captionCues',
  'captionsOfCut',
  'draftTranscript',
  'packTranscript',
  'proposeCopy',
  'readTalk',
  'readTranscript',
  'retime',
  'scorePassage',
  'searchTranscript',
  'sentenceTexts',
  'sift',
  'siftSteps',
  'timeText',
  'unpackTranscript',
];

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'var/**', 'apps/web/src/app/generated-api.ts', 'test-results/**', 'playwright-report/**'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  prettier,
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off', // noUncheckedIndexedAccess asks for them where an index is known to hold
      '@typescript-eslint/no-extraneous-class': 'off', // Nest modules and forms are classes by nature
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-dynamic-delete': 'off',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'error',
    },
  },
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/*.fixture.ts'],
    rules: {
      'no-restricted-imports': ['error', { patterns: [{ group: CORE_IMPORTS, message: 'The core imports no platform, framework or other package of ours.' }] }],
      'no-restricted-syntax': ['error', ...CLOCK_AND_CHANCE],
      'no-restricted-globals': ['error', ...PLATFORM_GLOBALS],
    },
  },
  {
    files: ['packages/core/src/{time,transcript,text,sound,copy,cut,plan,feed}/**/*.ts'],
    ignores: ['**/*.test.ts', '**/*.fixture.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: CORE_IMPORTS, message: 'The core imports no platform, framework or other package of ours.' },
            { regex: '/sift/', message: 'The sift uses these; they know nothing of it.' },
          ],
        },
      ],
    },
  },
  {
    files: ['packages/core/src/time/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: [{ group: ['../*', '@*', 'node:*'], message: 'time imports nothing.' }] }] },
  },
  {
    files: ['packages/forms/src/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['@nestjs/*', 'react*', 'sequelize*', '@sift-reel/server', '@sift-reel/web'],
              message: 'Forms are shared by server and web: neither of them here.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['apps/web/src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['node:*', '@nestjs/*', 'sequelize*', '@sift-reel/server*', '@sift-reel/embedder*'],
              message: 'The web asks the server; it does not contain it.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['apps/web/src/**/*.tsx'],
    ignores: ['**/*.test.tsx', '**/*.fixture.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: 'JSXText[value=/[A-Za-z]{2}/]', message: SAID_IN_TEXTS },
        { selector: `JSXAttribute[name.name=/^(?:${SHOWN_ATTRIBUTES.join('|')})$/] > Literal[value=/[A-Za-z]{2}/]`, message: SAID_IN_TEXTS },
      ],
    },
  },
  ...FEATURES.map((feature) => ({
    files: [`apps/web/src/features/${feature}/**/*.{ts,tsx}`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: ['node:*', '@nestjs/*', '@sift-reel/server*', '@sift-reel/embedder*'], message: 'The web asks the server; it does not contain it.' },
            {
              regex: `^\\.\\./(?!${feature}/)(?:${FEATURES.join('|')})/(?!(?:${Object.values(OFFERED).flat().join('|')})\\.js$)`,
              message: 'A feature does not reach into another feature’s inside.',
            },
          ],
        },
      ],
    },
  })),
  {
    files: ['apps/server/src/**/*.ts', 'apps/cli/src/**/*.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: [{ group: ['react*', '@sift-reel/web*'], message: 'The server knows no screen.' }] }] },
  },
  ...SERVER_ORDER.map((folder, i) => ({
    files: [`apps/server/src/${folder}/**/*.ts`],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: ['react*', '@sift-reel/web*'], message: 'The server knows no screen.' },
            ...(i + 1 === SERVER_ORDER.length
              ? []
              : [{ regex: `^\\.\\./(?:${SERVER_ORDER.slice(i + 1).join('|')})/`, message: `${folder} comes before it: see SERVER_ORDER.` }]),
          ],
        },
      ],
    },
  })),
  {
    // Queries started together go to one connection when there is a transaction, which must not be asked while it answers.
    files: ['apps/server/src/{audit,identity,clients,recordings,preparing,sifting,shorts,aligning,rendering,writing,planning,publishing}/**/*.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: "MemberExpression[object.name='Promise'][property.name=/^all/]", message: 'Ask one after the other: both may belong to one transaction.' },
      ],
    },
  },
  {
    // Another rule than the one above, so that both hold.
    files: ['apps/server/src/**/*.ts'],
    ignores: ['apps/server/src/text/{text-tasks,cut-tasks,align-tasks,prepare-task,office-text,html-text,unpack}.ts', 'apps/server/src/sifting/sift-task.ts'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          paths: [
            {
              name: '@sift-reel/core',
              importNames: [...ON_WHOLE_TRANSCRIPTS],
              message: 'What reads a whole transcript would hold up the event loop: it belongs into a task of a thread (text-tasks, sift-task).',
              allowTypeImports: true,
            },
            { name: '@sift-reel/core/reading', message: 'It reads whole transcripts: only prepare-task does, in a thread.' },
            { name: '@sift-reel/core/language', message: 'It takes 60 MB: only the threads that sift have it.' },
          ],
          patterns: [
            {
              regex: '/(?:text-tasks|cut-tasks|prepare-task)\\.js$',
              importNamePattern: '^(?!.*Task$|FoundSentence$|MovedEnds$|CutOfWords$|PrepareOutcome$|Prepared)',
              message: 'Ask the pool (TextPool): these run in its threads.',
              allowTypeImports: true,
            },
          ],
        },
      ],
    },
  },
  {
    files: ['scripts/**/*.mjs', 'apps/server/test/*.mjs', 'demo/**/*.mjs', 'bench/**/*.mjs', 'eslint.config.js'],
    languageOptions: {
      globals: Object.fromEntries(
        [
          'process',
          'console',
          'fetch',
          'AbortController',
          'FormData',
          'Blob',
          'Buffer',
          'URL',
          'URLSearchParams',
          'setTimeout',
          'clearTimeout',
          'setInterval',
          'clearInterval',
          'performance',
          'document',
          'requestAnimationFrame',
          'TextEncoder',
          'structuredClone',
          'window',
          'KeyboardEvent',
        ].map((name) => [name, 'readonly']),
      ),
    },
  },
);
