import { RadioGroup } from "radix-ui";
import { useId } from "react";

interface ChoiceProps {
  label: string;
  value: string;
  /** What may be chosen, each with the word for it. */
  of: { value: string; word: string }[];
  onChoose: (value: string) => void;
}

const ITEM =
  "h-8 cursor-pointer rounded-[4px] border border-line-strong bg-surface px-3 text-[13px] text-ink-2 " +
  "data-[state=checked]:border-ink data-[state=checked]:font-semibold data-[state=checked]:text-ink";

/** One of a few, all of them seen at once. */
export function Choice({ label, value, of, onChoose }: ChoiceProps) {
  const id = useId();
  return (
    <div className="grid w-full gap-1">
      <span id={id} className="text-[12px] text-ink-2">
        {label}
      </span>
      <RadioGroup.Root
        aria-labelledby={id}
        value={value}
        onValueChange={onChoose}
        orientation="horizontal"
        className="flex flex-wrap gap-1"
      >
        {of.map((each) => (
          <RadioGroup.Item key={each.value} value={each.value} className={ITEM}>
            {each.word}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
    </div>
  );
}
