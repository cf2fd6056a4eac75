import type { Aligned } from '../listing/align';

/** How the project's root was told in a listing; `null` where it is the listing's own. */
export const alignedWords = ({ root, by, outside }: Omit<Aligned, 'folders'>): string | null => {
  if (by === null) return null;
  const why = by === 'name' ? 'it is called so' : 'most of its planned folders are in it';
  const rest = outside > 0 ? `; ${outside} beside it are passed over` : '';
  return `${root} is taken for the project's root: ${why}${rest}.`;
};
