/** Tabs of what stands beside a text. */
export const SIDE_TAB =
  "cursor-pointer border-0 border-b-2 border-solid border-transparent bg-transparent p-0 pb-1 text-[16px] " +
  "font-semibold text-ink-2 data-[state=active]:border-ink data-[state=active]:text-ink";

/** Tabs of the parts of a form. */
export const PART_TAB =
  "cursor-pointer border-0 border-b-2 border-solid border-transparent bg-transparent px-1 py-1 text-[13px] " +
  "text-ink-2 data-[state=active]:border-ink data-[state=active]:font-semibold data-[state=active]:text-ink";
