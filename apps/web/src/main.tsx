import 'reflect-metadata';
import './app/theme.css';
import { applyTheme, readTheme } from './app/theme.js';
import { takeTexts, wishedLanguage } from './texts/texts.js';

applyTheme(readTheme());
// The screens' constants hold texts, so the language is there before they are loaded.
await takeTexts(wishedLanguage());
await import('./app/start.js');
