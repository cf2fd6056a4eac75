/** What opens beneath a button. */
import { Check } from 'lucide-react';
import { DropdownMenu, Popover as RadixPopover } from 'radix-ui';
import type { ReactNode } from 'react';

interface PopoverProps {
  /** What it is for, for whoever does not see it. */
  readonly label: string;
  readonly trigger: ReactNode;
  readonly children: ReactNode;
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
  readonly width?: string;
}

export function Popover({ label, trigger, children, open, onOpen, width = 'w-80' }: PopoverProps) {
  return (
    <RadixPopover.Root open={open} onOpenChange={onOpen}>
      <RadixPopover.Trigger asChild>{trigger}</RadixPopover.Trigger>
      <RadixPopover.Portal>
        <RadixPopover.Content
          aria-label={label}
          align="start"
          sideOffset={4}
          className={`z-40 max-h-96 overflow-auto rounded-tray border border-rule bg-sheet p-1 shadow-xl ${width}`}
        >
          {children}
        </RadixPopover.Content>
      </RadixPopover.Portal>
    </RadixPopover.Root>
  );
}

export interface MenuLine {
  readonly words: string;
  readonly run: () => void;
  readonly chosen?: boolean;
}

interface MenuProps {
  readonly trigger: ReactNode;
  readonly head?: ReactNode;
  readonly lines: readonly MenuLine[];
  readonly stay?: boolean;
}

export function Menu({ trigger, head, lines, stay = false }: MenuProps) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-40 min-w-56 rounded-tray border border-rule bg-sheet p-1 shadow-xl"
        >
          {head && <div className="border-b border-line px-2 py-1.5 text-sm text-ink2">{head}</div>}
          {lines.map((line) => (
            <DropdownMenu.Item
              key={line.words}
              onSelect={(e) => {
                if (stay) e.preventDefault();
                line.run();
              }}
              className="flex items-center justify-between rounded px-2 py-1.5 text-sm outline-none data-highlighted:bg-chosen"
            >
              {line.words}
              {line.chosen && <Check size={14} aria-hidden />}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
