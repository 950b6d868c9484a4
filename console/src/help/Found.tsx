import { useDeferredValue } from "react";
import { Link } from "react-router";
import { lookUp } from "./lookup";
import { around } from "./search";

/** What the docs have on these words. */
export function Found({ sought, onGo }: { sought: string; onGo?: () => void }) {
  const words = useDeferredValue(sought);
  const found = lookUp(words);
  if (found.length === 0) return <p className="empty">The docs have nothing on “{sought.trim()}”.</p>;
  return (
    <ul className="m-0 list-none p-0">
      {found.map((each) => (
        <li key={`${each.page}#${each.slug}`} className="border-t border-line py-2">
          <Link to={`/docs/${each.page}#${each.slug}`} onClick={onGo}>
            <b>{each.heading}</b>
          </Link>{" "}
          <span className="quiet">
            {each.title} · {each.page.split("/")[0]}
          </span>
          <div className="quiet truncate">{around(each, words)}</div>
        </li>
      ))}
    </ul>
  );
}
