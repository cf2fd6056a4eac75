/** Templates being written. */
import type { Template } from '@nesting/core/template';
import { draftSlice } from '../../../app/draft-slice';

export const templateDrafts = draftSlice<Template>('templates', 'nesting-templates');
