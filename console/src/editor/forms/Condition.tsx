import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import type { Path } from "../edits";
import { Text, typed } from "./Text";
import type { Writing } from "./writing";

interface Props {
  id: string;
  writing: Writing;
  path: Path;
  value: string;
}

/** A condition, tried over the newest runs as it is typed. */
export function Condition({ id, writing, path, value }: Props) {
  const [text, setText] = useState(value);
  const [shown, setShown] = useState(value);
  if (shown !== value) {
    setShown(value);
    setText(value);
  }
  const key = String(path.at(-1));
  const tried = useQuery({
    queryKey: ["condition", writing.component, path.join(" "), text],
    enabled: text !== "" && path[0] === "stages" && (key === "wanted-if" || key === "warn-if"),
    staleTime: 60_000,
    placeholderData: (before) => before,
    queryFn: () =>
      need(
        api.POST("/api/v1/components/{name}/pipeline/conditions", {
          params: { path: { name: writing.component } },
          body: { key, condition: text, stage: String(path[1]) },
        }),
      ),
  });
  return (
    <>
      <Text id={id} value={value} onType={setText} onWrite={(written) => writing.write(path, typed(value, written))} />
      {tried.data && text !== "" && (
        <Tried view={tried.data} component={writing.component} wanted={key === "wanted-if"} />
      )}
    </>
  );
}

function Tried({ view, component, wanted }: { view: Schemas["ConditionView"]; component: string; wanted: boolean }) {
  if (view.reason)
    return (
      <p className="bad m-0 text-[12px]" role="status">
        It {view.reason}
      </p>
    );
  const held = view.runs.filter((run) => run.holds === true);
  const would = wanted ? "Would have been wanted" : "Would have warned";
  const untold = view.runs.filter((run) => run.holds === undefined).length;
  return (
    <p className="m-0 text-[12px] text-ink-2" role="status">
      {view.runs.length === 0
        ? "There is no run yet over which it could be tried."
        : `${would} in ${held.length} of the last ${view.runs.length} runs`}
      {held.length > 0 && ": "}
      {held.slice(0, 8).map((run, at) => (
        <span key={run.number}>
          {at > 0 && ", "}
          <Link to={`/runs/${component}/${run.number}`} title={run.branch}>
            #{run.number}
          </Link>
        </span>
      ))}
      {held.length > 8 && ` and ${held.length - 8} more`}
      {untold > 0 && `; for ${untold} it cannot be told`}
      {view.runs.length > 0 && "."}
    </p>
  );
}
