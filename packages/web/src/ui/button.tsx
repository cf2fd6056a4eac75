import type { ButtonHTMLAttributes, Ref } from 'react';

type ButtonLook = 'main' | 'plain' | 'quiet';

const BUTTON: Readonly<Record<ButtonLook, string>> = {
  main: 'bg-bottle text-on-bottle border-bottle hover:opacity-90 disabled:bg-line disabled:border-line disabled:text-ink2',
  plain: 'bg-sheet text-ink border-rule hover:border-ink disabled:text-ink2',
  quiet: 'border-clear text-bottle hover:underline underline-offset-4 px-0!',
};

export function Button({
  look = 'plain',
  className = '',
  ref,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: ButtonLook; ref?: Ref<HTMLButtonElement> }) {
  return (
    <button
      type="button"
      ref={ref}
      className={`h-9 rounded-tray border px-3.5 text-sm font-semibold whitespace-nowrap ${BUTTON[look]} ${className}`}
      {...rest}
    />
  );
}
