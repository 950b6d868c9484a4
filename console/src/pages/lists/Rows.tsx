import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { cloneElement, useEffect, useLayoutEffect, useRef, useState, type JSX } from "react";

/** As high as a row of one line is; each is measured once it is there. */
const HEIGHT = 34;
/** So many rows before the last that is loaded, more are asked for. */
const AHEAD = 10;

interface RowsProps<T> {
  rows: T[];
  row: (each: T) => JSX.Element;
  columns: number;
  /** Asks for more; undefined where there are none. */
  onMore: (() => void) | undefined;
}

/** The rows of a long table: only those near what is looked at are in the page, and more come before the end does. */
export function Rows<T>({ rows, row, columns, onMore }: RowsProps<T>) {
  const body = useRef<HTMLTableSectionElement>(null);
  const [top, setTop] = useState(0);
  useLayoutEffect(() => {
    const at = body.current?.getBoundingClientRect().top;
    if (at !== undefined) setTop(at + window.scrollY);
  }, []);
  // eslint-disable-next-line react-hooks/incompatible-library
  const shown = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => HEIGHT,
    overscan: 12,
    scrollMargin: top,
    useFlushSync: false,
  });
  const items = shown.getVirtualItems();
  const [first, last] = [items[0], items.at(-1)];
  const near = last !== undefined && last.index >= rows.length - AHEAD;
  useEffect(() => {
    if (near) onMore?.();
  }, [near, onMore]);
  return (
    <tbody ref={body}>
      <Space height={(first?.start ?? top) - top} columns={columns} />
      {items.map((item) =>
        cloneElement(row(rows[item.index] as T), {
          ref: shown.measureElement,
          "data-index": item.index,
          "aria-rowindex": item.index + 2,
        }),
      )}
      <Space height={last ? shown.getTotalSize() + top - last.end : 0} columns={columns} />
    </tbody>
  );
}

/** What stands in for rows that are not in the page. */
const Space = ({ height, columns }: { height: number; columns: number }) =>
  height > 0 ? (
    <tr aria-hidden="true">
      <td colSpan={columns} style={{ height, padding: 0, border: 0 }} />
    </tr>
  ) : null;
