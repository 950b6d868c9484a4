/** Tabs of a page. */
export const TABS =
  "flex flex-wrap gap-1 mb-2 border-b border-b-line [&_button]:border-0 [&_button]:bg-transparent " +
  "[&_button]:pt-1.5 [&_button]:px-3 [&_button]:pb-2 [&_button]:text-[13px] " +
  "[&_button]:text-ink-2 [&_button]:border-b-2 [&_button]:border-b-transparent [&_button]:-mb-px " +
  "[&_button[data-state=active]]:text-ink [&_button[data-state=active]]:font-semibold " +
  "[&_button[data-state=active]]:border-b-ink";

/** Tabs of what stands beside a text. */
export const SIDE_TAB =
  "cursor-pointer border-0 border-b-2 border-solid border-transparent bg-transparent p-0 pb-1 text-[16px] " +
  "font-semibold text-ink-2 data-[state=active]:border-ink data-[state=active]:text-ink";

/** Tabs of the parts of a form. */
export const PART_TAB =
  "cursor-pointer border-0 border-b-2 border-solid border-transparent bg-transparent px-1 py-1 text-[13px] " +
  "text-ink-2 data-[state=active]:border-ink data-[state=active]:font-semibold data-[state=active]:text-ink";
