import { nodesAt } from "../../../editor/completion";
import { valueAt, type Value } from "../../../editor/edits";
import { Choice } from "../../../design/Choice";
import { Fields } from "../../../editor/forms/Fields";
import type { Writing } from "../../../editor/forms/writing";

const KINDS = ["together", "rolling", "blue-green", "canary"];
const BEGIN: Record<string, Value> = {
  rolling: { rolling: { batch: 1 } },
  canary: { canary: { shares: [{ percent: 10, stay: "5m" }] } },
};

/** The deployment: its strategy and its checks first, then all else. */
export function Recipe({ writing }: { writing: Writing }) {
  const path = ["deployment"];
  const recipe = valueAt(writing.opened, path) as Record<string, unknown> | undefined;
  const properties = Object.entries(nodesAt(writing.schema, path).find((node) => node.properties)?.properties ?? {});
  if (recipe === undefined) {
    return (
      <div className="grid justify-items-start gap-2">
        <p className="m-0 text-ink-2">Its versions are sealed, and not deployed.</p>
        <button
          type="button"
          className="btn small"
          onClick={() => writing.write(path, { "on-each-host": ["deploy/install.sh"] })}
        >
          Add a deployment
        </button>
      </div>
    );
  }
  const strategy = recipe.strategy;
  const kind = typeof strategy === "string" ? strategy : (Object.keys((strategy ?? {}) as object)[0] ?? "together");
  const settings = Object.entries(
    nodesAt(writing.schema, ["deployment", "strategy", kind]).find((node) => node.properties)?.properties ?? {},
  );
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-3">
      <Choice
        label="Hosts get a version"
        value={kind}
        of={KINDS.map((value) => ({ value, word: value }))}
        onChoose={(chosen) => writing.write([...path, "strategy"], BEGIN[chosen] ?? chosen)}
      />
      {typeof strategy === "object" && settings.length > 0 && (
        <Fields writing={writing} path={[...path, "strategy", kind]} properties={settings} />
      )}
      <Fields writing={writing} path={path} properties={properties} without={["strategy", "like"]} />
    </div>
  );
}
