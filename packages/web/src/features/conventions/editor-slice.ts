/** Conventions being written. */
import type { Convention } from '@nesting/core/template';
import { draftSlice } from '../../app/draft-slice';

export const conventionDrafts = draftSlice<Convention>('conventions', 'nesting-conventions');
