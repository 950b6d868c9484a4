/** How things look that stand on several pages, in utilities. */

export const GRAPH_SCROLL = "flex items-center gap-6 px-0.5 pt-4 pb-4.5 overflow-x-auto [--gbg:var(--surface)]";
export const GRAPH = "relative flex-none [&>svg]:absolute [&>svg]:inset-0 [&>svg]:overflow-visible";
export const RUN_COLUMNS =
  "grid grid-cols-[minmax(0,1fr)_300px] gap-8 items-start max-[1080px]:grid-cols-[minmax(0,1fr)]";
export const RUN_SIDE =
  "grid grid-cols-[minmax(0,1fr)] gap-2 content-start wrap-anywhere [&_h2]:mt-2 [&_h2_small]:text-[12px] " +
  "[&_h2_small]:font-[450] " +
  "[&_h2_small]:text-ink-3 [&_h2_small]:ml-1.5";
export const PLAIN = "list-none p-0 m-0 grid gap-1";
export const EVIDENCE = "pr-8 min-w-0 grid gap-3 content-start max-[1080px]:pr-0";
export const RULE = "pt-2.5 border-t border-t-line mb-1 text-[13px] text-ink";
export const DECIDE = "sticky bottom-[var(--groundline-h)] bg-surface pt-1.5 grid gap-1.5";
export const DECIDE_BUTTONS = "grid grid-cols-[1fr_120px] gap-2.5";
export const MAY_NOT = "px-3 py-2.5 bg-sunken rounded-[var(--r-2)] text-[13px] leading-[18px] text-ink-2";
export const DESK =
  "grid grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)] gap-6 items-start max-[1000px]:grid-cols-[minmax(0,1fr)]";
export const DESK_TEXT = "overflow-hidden flex flex-col h-[calc(100vh_-_200px)] min-h-105 max-[1000px]:h-115";
export const DESK_BAR =
  "flex flex-wrap items-center gap-2 pr-3 pl-4 py-2 border-b border-b-line text-[13px] [&_select]:h-7 " +
  "[&_select]:max-w-55";
export const DESK_SIDE = "grid gap-5 min-w-0 [&_h2]:mb-1";
export const PROBLEMS =
  "[&_li]:text-[13px] [&_li]:leading-[18px] [&_li]:wrap-anywhere [&_.bad]:font-[560] [&_.bad]:mr-1 " +
  "[&_.warn]:font-[560] [&_.warn]:mr-1";
export const COMMIT =
  "grid grid-cols-[150px_minmax(0,1fr)] gap-x-3 gap-y-2.5 items-end pt-4 border-t border-t-line [&_label]:grid " +
  "[&_label]:gap-1 [&_label]:text-[12px] [&_label]:text-ink-2 [&>.quiet-btn]:justify-self-start " +
  "[&_p]:col-span-full [&_p]:text-[13px]";
export const PLACE_COLUMNS =
  "grid grid-cols-[minmax(0,1fr)_240px] gap-4 items-start max-[800px]:grid-cols-[minmax(0,1fr)]";
export const PLACE_ACTIONS =
  "px-4.5 py-3.5 grid gap-2 [&_.btn]:w-full [&_.btn]:h-auto [&_.btn]:min-h-8.5 [&_.btn]:py-1.25 " +
  "[&_.btn]:whitespace-normal [&_.btn]:leading-[18px]";
export const WHERE_ASKS =
  "flex gap-2 items-center [&_input]:h-7.5 [&_input[type=search]]:w-37.5 [&_select]:h-7.5 max-[800px]:flex-wrap";
export const IN_SHORT = "grid gap-1 text-[13px] pl-4 list-disc";
export const TITLE_END = "ml-auto [&_b]:text-ink max-[720px]:ml-0";
export const TROUBLE = "max-w-140 mx-auto my-12 px-6 py-5 grid gap-2";
export const RESTRAINTS = "mb-4 grid list-none gap-1.5 p-0";
export const RESTRAINT = "flex gap-2 rounded-[var(--r-2)] border border-line bg-surface px-3 py-2.25 text-[14px]";
export const SECTION_HEAD = "flex flex-wrap items-baseline gap-2.5 pb-2 border-b border-b-line-strong";
export const OVERLAY = "fixed inset-0 [background:rgb(0_0_0_/_0.45)] z-40";
export const DIALOG =
  "fixed z-41 left-1/2 top-[var(--top,18vh)] -translate-x-1/2 w-[min(var(--width,520px),calc(100vw-32px))] " +
  "py-5 px-5.5 grid gap-3 [&_form]:grid [&_form]:gap-2.5";
export const START =
  "[&_label]:grid [&_label]:max-w-full [&_label]:gap-1 [&_label]:text-[12px] [&_label]:text-ink-2 grid " +
  "grid-cols-[minmax(0,1fr)] gap-2 justify-items-start [&_select]:min-w-45 [&_.flag]:flex " +
  "[&_.flag]:items-center [&_.flag]:gap-2";
export const BRING_IN =
  "[&_label]:grid [&_label]:max-w-full [&_label]:gap-1 [&_label]:text-[12px] [&_label]:text-ink-2 " +
  "[&_.flag]:flex [&_.flag]:items-center [&_.flag]:gap-2 [&_.flag]:my-2 [&_.flag]:mx-0 [&_.flag]:text-[13px] " +
  "[&_.flag_input]:w-4 [&_.flag_input]:h-4 [&_.flag_input]:flex-none p-5 [&_form]:grid [&_form]:gap-3.5 " +
  "[&_form]:max-w-130 [&_form]:justify-items-start [&_label]:w-full";
export const COMPONENT_PART =
  "[&_td_.v]:whitespace-nowrap py-3.5 px-5 mb-4 [--gbg:var(--surface)] [&_header]:flex [&_header]:gap-3 " +
  "[&_header]:items-baseline [&_header]:mb-2.5";
const PLACE_PART =
  "py-3.5 px-4.5 [&>header]:flex [&>header]:justify-between [&>header]:items-center [&>header]:mb-1.5 " +
  "[&_table]:w-full [&_table]:border-collapse [&_table]:text-[13px] [&_th]:text-left [&_th]:font-medium " +
  "[&_th]:text-ink-3 [&_th]:py-1 [&_th]:pr-3 [&_th]:pl-0 [&_td]:py-1.75 [&_td]:pr-3 [&_td]:pl-0 [&_td]:border-t " +
  "[&_td]:border-t-line [&_td]:align-top [&_.how_p]:leading-5";
export const PLACE_HOSTS = `${PLACE_PART} [&_td:first-child]:whitespace-nowrap`;
export const PLACE_HISTORY = `${PLACE_PART} mt-4 [&_td:nth-child(-n+3)]:whitespace-nowrap [&_.pad]:px-0 [&_.pad]:py-2`;
export const TITLE_ACTION = "ml-auto self-center flex flex-wrap gap-3 items-center";
export const MAP_PATH = "flex items-center gap-1.5 mb-1.5 [&>.path]:mr-1.5 max-[1080px]:[&>.path]:hidden";
