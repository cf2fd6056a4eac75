import type { ButtonHTMLAttributes, Ref } from 'react';

type ButtonVariant = 'main' | 'plain' | 'quiet';

const BUTTON: Readonly<Record<ButtonVariant, string>> = {
  main: 'bg-bottle text-on-bottle border-bottle hover:opacity-90 disabled:bg-line disabled:border-line disabled:text-ink2',
  plain: 'bg-sheet text-ink border-rule hover:border-ink disabled:text-ink2',
  quiet: 'border-clear text-bottle hover:underline underline-offset-4 px-0!',
};

export function Button({
  variant = 'plain',
  className = '',
  ref,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { variant?: ButtonVariant; ref?: Ref<HTMLButtonElement> }) {
  return (
    <button
      type="button"
      ref={ref}
      className={`h-9 rounded-tray border px-3.5 text-sm font-semibold whitespace-nowrap ${BUTTON[variant]} ${className}`}
      {...rest}
    />
  );
}
