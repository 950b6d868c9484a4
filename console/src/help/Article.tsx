import Markdown from "react-markdown";
import { Link } from "react-router";
import rehypeSlug from "rehype-slug";
import remarkGfm from "remark-gfm";
import { PICTURES } from "./all";
import { ROOT, textOf } from "./texts";
import { Wide } from "../design/Wide";

const DOCS =
  "text-[15px] leading-5.75 [&>h1]:text-[24px] [&>h1]:leading-7.5 [&>h1]:mt-0 [&>h1]:mx-0 [&>h1]:mb-3 " +
  "[&_h2]:mt-7 [&_h2]:mx-0 [&_h2]:mb-2 [&_h2]:text-[19px] [&_h3]:mt-5 [&_h3]:mx-0 [&_h3]:mb-1.5 " +
  "[&_:is(h1,h2,h3,h4)]:[scroll-margin-top:70px] [&_p]:mt-0 [&_p]:mx-0 [&_p]:mb-3 [&_p]:max-w-[74ch] " +
  "[&_ul]:mt-0 [&_ul]:mx-0 [&_ul]:mb-3 [&_ul]:max-w-[74ch] [&_ol]:mt-0 [&_ol]:mx-0 [&_ol]:mb-3 " +
  "[&_ol]:max-w-[74ch] [&_ul]:list-disc [&_ul]:pl-5.5 [&_ol]:list-decimal [&_ol]:pl-5.5 [&_pre]:py-3 " +
  "[&_pre]:px-3.5 [&_pre]:bg-sunken [&_pre]:rounded-[4px] [&_pre]:overflow-x-auto [&_pre]:text-[12px] " +
  "[&_pre]:leading-4.5 [&_pre]:mt-0 [&_pre]:mx-0 [&_pre]:mb-3.5 [&_table]:w-full [&_table]:mt-0 [&_table]:mx-0 " +
  "[&_table]:mb-3.5 [&_table]:text-[13px] [&_td]:align-top [&_img]:max-w-full [&_img]:[background:#fff] " +
  "[&_img]:p-2";

/** An address that a page writes, from the root of the docs. */
const resolved = (page: string, address: string) =>
  new URL(address, `http://docs/${page}.md`).pathname.slice(1) + new URL(address, `http://docs/${page}.md`).hash;

/** A page of the docs, as it is written in the repository. */
export function Article({ page }: { page: string }) {
  const text = textOf(page);
  if (text === undefined) return <p className="empty">There is no page {page} in the docs.</p>;
  return (
    <article className={DOCS}>
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
