import { X } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Link, useLocation } from "react-router";
import { Article } from "./Article";
import { Found } from "./Found";
import { helpOf } from "./where";

const SHEET =
  "fixed top-[49px] right-0 bottom-8 z-40 w-[440px] max-w-full overflow-auto border-l border-line-strong " +
  "bg-surface p-5 shadow-[0_16px_48px_rgb(0_0_0/.2)] print:hidden";

/** How high the line is that stays above what is read. */
const HEAD = 76;

/** What the docs say of the page that is open, beside it: the page stays as it is. */
export default function Help({ onClose }: { onClose: () => void }) {
  const { pathname } = useLocation();
  const [page = "", heading] = helpOf(pathname).split("#");
  const [sought, setSought] = useState("");
  const sheet = useRef<HTMLElement>(null);
  useEffect(() => {
    const close = (event: KeyboardEvent) => event.key === "Escape" && onClose();
    window.addEventListener("keydown", close);
    return () => window.removeEventListener("keydown", close);
  }, [onClose]);
  useEffect(() => {
    const at = heading && sheet.current?.querySelector(`#${CSS.escape(heading)}`);
    sheet.current?.scrollTo(0, at instanceof HTMLElement ? at.offsetTop - HEAD : 0);
  }, [page, heading]);
  return (
    <aside ref={sheet} aria-label="Help" className={SHEET}>
      <div className="sticky -top-5 z-10 -mx-5 -mt-5 mb-3 flex items-center gap-2 bg-surface px-5 py-4">
        <input
          type="search"
          autoFocus
          className="input grow"
          aria-label="Search the docs"
          placeholder="search the docs"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
        />
        <button type="button" className="icon" aria-label="Close help" onClick={onClose}>
          <X size={16} />
        </button>
      </div>
      {sought.trim() ? (
        <Found sought={sought} onGo={onClose} />
      ) : (
        <>
          <p className="quiet m-0">
            On this page. <Link to={`/docs/${page}`}>Read it whole</Link>
          </p>
          <Article page={page} />
        </>
      )}
    </aside>
  );
}
