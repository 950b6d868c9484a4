import { useEffect, useRef, useState } from "react";

interface SearchProps {
  label: string;
  placeholder: string;
  /** What is asked now, as the address has it. */
  value: string;
  onType: (text: string) => void;
  /** Only so many milliseconds after the last letter. */
  pause?: number;
}

/**
 * A field that a list is searched by. What is typed stands in it at once: the address follows, and is listened to only
 * while nobody types, for it comes late.
 */
export function Search({ label, placeholder, value, onType, pause = 0 }: SearchProps) {
  const [text, setText] = useState(value);
  const field = useRef<HTMLInputElement>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    if (document.activeElement !== field.current) setText(value);
  }, [value]);
  useEffect(() => () => clearTimeout(timer.current), []);
  const type = (typed: string) => {
    setText(typed);
    clearTimeout(timer.current);
    if (pause > 0) timer.current = setTimeout(() => onType(typed), pause);
    else onType(typed);
  };
  return (
    <input
      ref={field}
      type="search"
      aria-label={label}
      placeholder={placeholder}
      value={text}
      onChange={(event) => type(event.target.value)}
    />
  );
}
