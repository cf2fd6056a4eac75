/** Controls, with the looks. Radix is wrapped here, and used nowhere else. */
export { Button } from './button';
export { Asking, Confirm, Drawer, Panel } from './dialogs';
export { Choose, Labelled, Lines, Radios, TextInput, Tick } from './fields';
export { FileButton, ZIPS } from './file-button';
export { Menu, type MenuLine, Popover } from './menus';
export { CopyButton, Empty, Heading, Refused, Tip, Tips, Trouble } from './said';
