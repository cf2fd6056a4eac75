/** Conventions being written. */
import type { Convention } from '@nesting/core';
import { draftSlice } from '../../app/draft-slice';

export const conventionDrafts = draftSlice<Convention>('conventions', 'nesting-conventions');
