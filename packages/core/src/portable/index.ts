/** What names and paths may be, by profile. */
export { clashKey, isLegalName, type NameFault, nameFaults, utf8Length } from './name';
export { DEFAULT_PATH_BUDGET, DEFAULT_PROFILES, PROFILE_NAMES, PROFILES, type ProfileName } from './profiles';
