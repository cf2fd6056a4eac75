/** Controls, with the looks. Radix is wrapped here, and used nowhere else. */
export { Button } from './button';
export { Asking, Confirm, Drawer, Panel } from './dialogs';
export { Choose, Labelled, Lines, Radios, TextInput, Tick } from './fields';
export { Menu, type MenuLine, Popover } from './menus';
export { CopyButton, Empty, Heading, Tip, Tips, Trouble } from './said';
