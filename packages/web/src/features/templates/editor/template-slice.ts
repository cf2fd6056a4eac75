/** Templates being written. */
import type { Template } from '@nesting/core';
import { draftSlice } from '../../../app/draft-slice';

export const templateDrafts = draftSlice<Template>('templates', 'nesting-templates');
