import type { Shape } from '@sift-reel/core';
import { t } from '../texts/texts.js';

/** Shapes of a picture, in words. */
export const SHAPE_NAMES: Readonly<Record<Shape, string>> = {
  vertical: t('common.vertical'),
  square: t('common.square'),
  portrait: t('common.portrait'),
  wide: t('common.wide'),
};
