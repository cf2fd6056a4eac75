/**
 * What a folder's name says, however it is written: `02_Survey Photos`, `survey-photos` and `SurveyPhotos` mean one
 * thing.
 */
export const meaningOf = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/^\d+[\s._-]+/, '')
    .replace(/[\s._-]+/g, '');
