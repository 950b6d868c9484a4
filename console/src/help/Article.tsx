import Markdown from "react-markdown";
import { Link } from "react-router";
import rehypeSlug from "rehype-slug";
import remarkGfm from "remark-gfm";
import { PICTURES } from "./all";
import { ROOT, textOf } from "./texts";
import { Wide } from "../design/Wide";

/** An address that a page writes, from the root of the docs. */
const resolved = (page: string, address: string) =>
  new URL(address, `http://docs/${page}.md`).pathname.slice(1) + new URL(address, `http://docs/${page}.md`).hash;

/** A page of the docs, as it is written in the repository. */
export function Article({ page }: { page: string }) {
  const text = textOf(page);
  if (text === undefined) return <p className="empty">There is no page {page} in the docs.</p>;
  return (
    <article className="docs">
      <Markdown
        remarkPlugins={[remarkGfm]}
        rehypePlugins={[rehypeSlug]}
        components={{
          a: ({ href = "", children }) => {
            if (/^[a-z]+:/.test(href)) return <a href={href}>{children}</a>;
            const [path = "", slug] = resolved(page, href).split("#");
            const to = path.replace(/\.md$/, "");
            return textOf(to) === undefined ? (
              <span>{children}</span>
            ) : (
              <Link to={`/docs/${to}${slug ? `#${slug}` : ""}`}>{children}</Link>
            );
          },
          img: ({ src, alt }) => {
            const picture = typeof src === "string" ? PICTURES[ROOT + resolved(page, src)] : undefined;
            return picture ? <img src={picture} alt={alt} loading="lazy" /> : <i>{alt}</i>;
          },
          table: ({ children }) => (
            <Wide label="Table">
              <table>{children}</table>
            </Wide>
          ),
          pre: ({ children }) => <pre tabIndex={0}>{children}</pre>,
        }}
      >
        {text}
      </Markdown>
    </article>
  );
}
