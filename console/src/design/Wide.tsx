import { useEffect, useRef, useState, type ReactNode } from "react";

/**
 * What may be wider than the screen: where it is, it scrolls sideways by itself, also by keyboard, and what stands in
 * it for screen readers alone stays in it.
 */
export function Wide({ label, className = "", children }: { label: string; className?: string; children: ReactNode }) {
  const place = useRef<HTMLDivElement>(null);
  const [wider, setWider] = useState(false);
  useEffect(() => {
    const box = place.current;
    if (!box) return;
    const look = new ResizeObserver(() => setWider(box.scrollWidth > box.clientWidth));
    [box, ...box.children].forEach((each) => look.observe(each));
    return () => look.disconnect();
  }, []);
  const reached = wider ? { tabIndex: 0, role: "region", "aria-label": label } : {};
  return (
    <div ref={place} className={`relative overflow-x-auto print:overflow-visible ${className}`} {...reached}>
      {children}
    </div>
  );
}
