/** A part of a report. */
export const REPORT_PART =
  "p-4 grid gap-4 [&_h2]:text-[16px] [&_h2]:leading-6 [&_h2_small]:font-[450] [&_h2_small]:text-ink-2 " +
  "[&_h2_small]:text-[13px] [&_h3]:text-[13px] [&_h3]:mt-3 [&_h3]:mx-0 [&_h3]:mb-1 [&_table]:w-full";
