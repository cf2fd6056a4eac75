/** Blocks of the house being written. */
import type { BlockBody } from '@nesting/contract';
import { draftSlice } from '../../app/draft-slice';

export const blockDrafts = draftSlice<BlockBody>('blocks', 'nesting-blocks');
