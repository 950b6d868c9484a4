import type { ReactNode } from "react";

/**
 * What may be wider than the screen: it scrolls sideways by itself, also by keyboard, and what stands in it for screen
 * readers alone stays in it.
 */
export const Wide = ({
  label,
  className = "",
  children,
}: {
  label: string;
  className?: string;
  children: ReactNode;
}) => (
  <div className={`relative overflow-x-auto ${className}`} tabIndex={0} role="region" aria-label={label}>
    {children}
  </div>
);
