/** Nesting's own folder at a project's root: the marker and the journals. */
export const OWN_FOLDER = '.nesting';
