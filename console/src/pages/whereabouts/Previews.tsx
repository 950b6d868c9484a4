import { useQuery } from "@tanstack/react-query";
import { ExternalLink } from "lucide-react";
import { Link } from "react-router";
import { previews } from "../../api/queries";
import { StateWord } from "../../design/Glyph";
import { deploymentState } from "../../design/states";
import { Since } from "../../design/time";

const PREVIEW =
  "flex flex-wrap items-baseline gap-x-3.5 gap-y-1.5 border-t border-dashed border-line-strong py-1.75 " +
  "first:border-t-0";

/** The preview environments: jetties off the path, each with its branch, and why it goes. */
export function Previews() {
  const there = useQuery(previews());
  if (!there.data || there.data.length === 0) return null;
  return (
    <section className="sheet mt-4 px-4.5 py-3.5" aria-label="Previews">
      <h2>Previews</h2>
      <ul className="list-none p-0 text-[13px]">
        {there.data.map((each) => (
          <li key={each.environment} className={PREVIEW}>
            <b>{each.component}</b> <code>{each.branch}</code>
            {each.url && each.version && (
              <a href={each.url} target="_blank" rel="noreferrer" className="inline-flex items-center gap-1">
                <ExternalLink size={13} /> {new URL(each.url).host}
              </a>
            )}
            {each.version && (
              <Link className="v" to={`/versions/${each.component}/${each.version}`}>
                {each.version}
              </Link>
            )}
            {each.status && each.deployment && (
              <Link to={`/deployments/${each.deployment}`}>
                <StateWord state={deploymentState(each.status)} />
              </Link>
            )}
            <span className="quiet">
              {each.removing ? (
                `goes: ${each.removing}`
              ) : (
                <>
                  pushed <Since time={each.pushedAt} /> ago by {each.owner}
                </>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
