import type { ComponentProps } from "react";

type Weight = "main" | "plain" | "quiet";

const looks: Record<Weight, string> = {
  main: "bg-dusk text-card border-dusk hover:bg-ink",
  plain: "bg-card text-ink border-edge hover:border-ink",
  quiet: "bg-transparent text-dusk border-transparent hover:underline",
};

/** How buttons and links that act like buttons look. */
export const buttonLook = (weight: Weight) =>
  `inline-flex min-h-8 items-center gap-2 whitespace-nowrap rounded-soft border px-3 py-1 text-note font-semibold aria-disabled:opacity-60 ${looks[weight]}`;

/** A button. While it is off it keeps the focus it has, and does nothing. */
export function Button({
  weight = "plain",
  className = "",
  disabled = false,
  onClick,
  ...rest
}: ComponentProps<"button"> & { weight?: Weight }) {
  return (
    <button
      type="button"
      className={`${buttonLook(weight)} ${className}`}
      aria-disabled={disabled || undefined}
      onClick={(event) => (disabled ? event.preventDefault() : onClick?.(event))}
      {...rest}
    />
  );
}
