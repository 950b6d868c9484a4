import { useQuery } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { chain, consequences } from "../../api/queries";
import { triggerEvents } from "../../api/components";
import { StateWord } from "../../design/Glyph";
import { Loading, Trouble } from "../../design/parts";
import { workState } from "../../design/states";
import { At } from "../../design/time";
import { neighbourhood, reachedBy, styleOf } from "./chain";
import { ChainGraph } from "./ChainGraph";
import { Walked } from "./Walked";
import { Wide } from "../../design/Wide";
import { COMPONENT_PART } from "../../design/classes";

const FOLLOW = "flex items-center gap-2 text-[13px] text-ink-2 max-[700px]:flex-wrap";

/** More than these are not drawn at once. */
const MOST = 120;

/**
 * Upstream and downstream across components: what starts what, the latest on each way, and one change's walk through
 * all.
 */
export default function Chain() {
  const [search, setSearch] = useSearchParams();
  const all = useQuery(chain());
  const of = search.get("of") ?? "";
  const event = Number(search.get("event") ?? all.data?.changes[0]?.event ?? 0);
  const change = all.data?.changes.find((each) => each.event === event);
  const component = change?.component ?? of;
  const events = useQuery({ ...triggerEvents(component), enabled: component !== "" && !change });
  const walked = useQuery({ ...consequences(component, event), enabled: component !== "" && event > 0 });
  if (all.isPending) return <Loading height={560} />;
  if (all.isLoadingError) return <Trouble whole error={all.error} />;
  const { components, edges, changes } = all.data;
  const told = change ?? events.data?.find((each) => each.id === event);
  const connected = new Set(edges.flatMap((edge) => [edge.upstream, edge.downstream]));
  const shown = connected.size > MOST ? neighbourhood(component, edges) : connected;
  const followed = told && walked.data ? reachedBy(walked.data) : undefined;
  return (
    <>
      <title>Chain · Paseo</title>
      <div className="title-line">
        <h1>Chain</h1>
        <p>What starts what, and how far a change has come.</p>
        {changes.length > 0 && (
          <label className={`${FOLLOW} ml-auto max-w-full self-center`}>
            Follow
            <select
              className="min-w-0 max-w-full"
              value={told ? event : ""}
              onChange={(choice) => setSearch({ event: choice.target.value })}
            >
              {!change && told && <option value={event}>{sentenceOf(told)}</option>}
              {changes.map((each) => (
                <option key={each.event} value={each.event}>
                  {sentenceOf(each)}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      {edges.length === 0 ? (
        <p className="empty">
          No component starts another yet. In a pipeline file, <code>starts: [&#123;upstream: NAME&#125;]</code> makes
          one start from another&apos;s runs.
        </p>
      ) : (
        <ChainGraph
          members={components.filter((member) => shown.has(member.component))}
          edges={edges.filter((edge) => shown.has(edge.upstream) && shown.has(edge.downstream))}
          followed={followed}
          selected={component}
        />
      )}
      {connected.size > shown.size && (
        <p className="quiet">
          Of {connected.size} components those that {component || "a chosen change"} is connected with are drawn.
        </p>
      )}
      {told && walked.data && <Walked sentence={sentenceOf(told)} at={told.at} tree={walked.data} />}
      {walked.isError && (
        <p className="bad" role="alert">
          {walked.error.message}
        </p>
      )}
      {edges.length > 0 && <Ways edges={edges} />}
      <Alone names={components.map((member) => member.component).filter((name) => !connected.has(name))} />
    </>
  );
}

const sentenceOf = (each: { component: string; sentence: string }) =>
  each.sentence.startsWith(each.component) ? each.sentence : `${each.component}: ${each.sentence}`;

function Ways({ edges }: { edges: Schemas["EdgeView"][] }) {
  return (
    <section className={`${COMPONENT_PART} sheet mb-4`}>
      <header>
        <h2>The latest on each way</h2>
      </header>
      <Wide label="The latest on each way">
        <table>
          <thead>
            <tr>
              <th>From</th>
              <th>To</th>
              <th>On</th>
              <th>What happened last</th>
              <th>What it started</th>
            </tr>
          </thead>
          <tbody>
            {edges.map((edge) => (
              <tr key={`${edge.upstream}>${edge.downstream}`}>
                <td>
                  <Link to={`/components/${edge.upstream}`}>{edge.upstream}</Link>
                </td>
                <td>
                  <Link to={`/components/${edge.downstream}`}>{edge.downstream}</Link>
                </td>
                <td>{edge.on.map((what) => (what === "runs" ? "its runs" : `live in ${what}`)).join(", ")}</td>
                <td>
                  {edge.last ? (
                    <>
                      {edge.last.sentence}{" "}
                      <span className="quiet">
                        <At time={edge.last.at} />
                      </span>
                    </>
                  ) : (
                    <span className="quiet">nothing yet</span>
                  )}
                </td>
                <td>
                  <Result edge={edge} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </section>
  );
}

function Result({ edge }: { edge: Schemas["EdgeView"] }) {
  if (!edge.last) return null;
  if (styleOf(edge) === "stopped") return <>nothing: {edge.last.reason}</>;
  const state = workState(edge.last.status ?? "");
  return (
    <StateWord state={state}>
      <Link to={`/runs/${edge.downstream}/${edge.last.run}`}>
        {edge.downstream}#{edge.last.run}
      </Link>{" "}
      {state.word}, <span className="v">{edge.last.version}</span>
    </StateWord>
  );
}

function Alone({ names }: { names: string[] }) {
  if (names.length === 0) return null;
  return (
    <p className="quiet text-[13px]">
      Started by nothing upstream, starting nothing downstream:{" "}
      {names.slice(0, 40).map((name, at) => (
        <span key={name}>
          {at > 0 && ", "}
          <Link to={`/components/${name}`}>{name}</Link>
        </span>
      ))}
      {names.length > 40 && ` and ${names.length - 40} more`}.
    </p>
  );
}
