/** What waits, a row each: what kind, what it is, what one does. */
export const WAITS =
  "[&>li]:grid [&>li]:grid-cols-[auto_minmax(0,1fr)_auto] [&>li]:gap-3.5 [&>li]:items-start [&>li]:py-3.5 " +
  "[&>li]:px-4.5 [&>li]:[--gbg:var(--surface)] [&>li+li]:border-t [&>li+li]:border-t-line [&>li>div>*]:block " +
  "[&>li>div>*]:text-[13px] [&>li>div>*]:leading-4.5 [&>li>div>b:first-child]:text-[15px] " +
  "[&>li>div>b:first-child]:leading-5.25 [&>li>div>span>b]:inline [&>li>div>span>b]:mr-1 " +
  "max-[900px]:[&>li]:grid-cols-[auto_minmax(0,1fr)]";
export const WAITS_ACT = "flex gap-2 items-center max-[900px]:col-start-2";
