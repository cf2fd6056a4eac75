import type { Aligned } from '../listing/align';

const WHY = {
  name: 'it is called so',
  fit: 'most of its planned folders are in it',
  only: 'nothing else is at the top of the listing',
} as const;

/** How the project's root was told in a listing; `null` where it is the listing's own. */
export const alignedWords = ({ root, by, outside }: Omit<Aligned, 'folders'>): string | null => {
  if (by === null) return null;
  const rest = outside > 0 ? `; ${outside} beside it are passed over` : '';
  return `${root} is taken for the project's root: ${WHY[by]}${rest}.`;
};
