/** A list of what happened, or of what is watched, beside a component. */
export const EVENTS =
  "mt-5 [&_ul]:list-none [&_ul]:m-0 [&_ul]:p-0 [&_li]:py-1.75 [&_li]:px-0 [&_li]:border-t [&_li]:border-t-line " +
  "[&_li]:text-[13px] [&_li]:leading-4.5 [&_li:first-child]:border-t-0 " +
  "[&_.made]:pl-4.5 [&_.made]:text-ink-2 [&_.made_a]:text-ink";
