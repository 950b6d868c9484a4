import { useEffect } from "react";
import { Link, NavLink, useLocation, useParams, useSearchParams } from "react-router";
import { Article } from "../../help/Article";
import { Found } from "../../help/Found";
import { pages, textOf } from "../../help/texts";
import { TITLE_END } from "../../design/classes";

const ROOMS: [room: string, name: string][] = [
  ["start", "Start"],
  ["how-to", "How to"],
  ["explanation", "Explanation"],
  ["reference", "Reference"],
];

const PAGE =
  "block py-1 text-ink-2 no-underline hover:underline aria-[current=page]:font-semibold aria-[current=page]:text-ink";

const titleOf = (page: string) => /^# +(.+)$/m.exec(textOf(page) ?? "")?.[1]?.replaceAll("`", "") ?? page;

/** The docs, served by the service that they are about, and searched. */
export default function Docs() {
  const { room, name } = useParams();
  const [params, setParams] = useSearchParams();
  const { hash } = useLocation();
  const sought = params.get("text") ?? "";
  const page = room && name ? `${room}/${name}` : "";
  useEffect(() => {
    if (hash) document.getElementById(decodeURIComponent(hash.slice(1)))?.scrollIntoView();
    else scrollTo(0, 0);
  }, [page, hash]);
  return (
    <>
      <title>{`${page ? titleOf(page) : "Docs"} · Paseo`}</title>
      <div className="title-line">
        <h1>Docs</h1>
        <p>Of this version of Paseo.</p>
        <form className={TITLE_END} onSubmit={(event) => event.preventDefault()}>
          <input
            type="search"
            className="h-[34px] w-[260px]"
            aria-label="Search the docs"
            placeholder="search the docs"
            value={sought}
            onChange={(event) => setParams(event.target.value ? { text: event.target.value } : {}, { replace: true })}
          />
        </form>
      </div>
      <div className="grid grid-cols-[230px_minmax(0,1fr)] items-start gap-8 max-[800px]:grid-cols-1">
        <nav aria-label="Docs" className="text-[13px]">
          {ROOMS.map(([each, word]) => (
            <section key={each} className="mb-4">
              <b>{word}</b>
              {pages
                .filter((path) => path.startsWith(`${each}/`))
                .map((path) => (
                  <NavLink key={path} to={`/docs/${path}`} className={PAGE}>
                    {titleOf(path)}
                  </NavLink>
                ))}
            </section>
          ))}
        </nav>
        <section className="sheet max-w-[820px] p-6">
          {sought.trim() ? (
            <Found sought={sought} />
          ) : page ? (
            <Article page={page} />
          ) : (
            <p>
              Begin with <Link to="/docs/start/what-paseo-is">what Paseo is</Link>, walk through{" "}
              <Link to="/docs/start/tutorial">the tutorial</Link>, or search. Each page of the console has its help
              under <b>Help</b> above.
            </p>
          )}
        </section>
      </div>
    </>
  );
}
