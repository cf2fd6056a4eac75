/** What names and paths may be, by profile. */
export { type NameFault, nameFaults } from './name';
export { DEFAULT_PROFILES, PROFILE_NAMES, PROFILES, type ProfileName } from './profiles';
