import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { Looking } from "../history/Looking";
import { Wide } from "../../design/Wide";

/** Which versions have a part, and where they are live. */
export default function Packages() {
  const [asked, ask] = useSearchParams();
  const name = asked.get("name") ?? "";
  const [text, setText] = useState(name);
  return (
    <>
      <title>{`${name || "Parts"} · Paseo`}</title>
      <div className="title-line">
        <h1>Who has this part?</h1>
        <p>
          <Looking but="Who has this part?" />
        </p>
      </div>
      <form
        className="mb-4 flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          ask({ name: text.trim() });
        }}
      >
        <label className="flex w-[600px] min-w-0 items-center gap-2">
          Part
          <input
            className="min-w-0 grow"
            value={text}
            required
            maxLength={400}
            placeholder="pkg:maven/org.example/horizon@3.1, or horizon"
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <button type="submit" className="btn">
          Look
        </button>
      </form>
      {name ? (
        <Having key={name} name={name} />
      ) : (
        <p className="quiet max-w-[60ch]">
          A package URL, with a version or without, or the last word of a name. Versions have parts where a stage
          reports them: <code>{"reports: {parts: parts.cdx.json}"}</code>, CycloneDX in JSON.
        </p>
      )}
    </>
  );
}

function Having({ name }: { name: string }) {
  const found = useQuery({
    queryKey: ["packages", name],
    queryFn: () => need(api.GET("/api/v1/packages", { params: { query: { name } } })),
    retry: false,
  });
  if (found.isPending) return <Loading height={320} />;
  if (found.isLoadingError) return <Trouble whole error={found.error} />;
  const { versions, all } = found.data;
  const live = versions.filter((each) => each.live.length > 0);
  return (
    <>
      <p className="mb-3" role="status">
        {versions.length === 0
          ? "No version has it, as far as reports of parts say."
          : `${counted(live.length)} with it ${live.length === 1 ? "is" : "are"} live; ` +
            `${counted(versions.length)} ${versions.length === 1 ? "has" : "have"} it${all ? "" : ", and older ones"}.`}
      </p>
      {versions.length > 0 && (
        <Wide label="Versions that have it" className="sheet">
          <table className="w-full text-left">
            <thead>
              <tr>
                <th className="p-3">Version</th>
                <th className="p-3">Live in</th>
                <th className="p-3">As</th>
                <th className="p-3">Sealed</th>
              </tr>
            </thead>
            <tbody>
              {versions.map((each) => (
                <Row key={`${each.component} ${each.version}`} version={each} />
              ))}
            </tbody>
          </table>
        </Wide>
      )}
    </>
  );
}

const counted = (count: number) => `${count} ${count === 1 ? "version" : "versions"}`;

const Row = ({ version }: { version: Schemas["PackageVersionView"] }) => (
  <tr className="border-t border-line align-top">
    <td className="p-3">
      <Link to={`/versions/${version.component}/${encodeURIComponent(version.version)}`}>
        {version.component} {version.version}
      </Link>
    </td>
    <td className="p-3">
      {version.live.length === 0 && <span className="quiet">nowhere</span>}
      {version.live.map((each) => (
        <Link key={each.deployment} className="mr-3" to={`/places/${version.component}/${each.environment}`}>
          {each.environment}
        </Link>
      ))}
    </td>
    <td className="p-3 [overflow-wrap:anywhere]">
      {version.parts.map((part) => (
        <code key={`${part.name} ${part.version}`} className="block">
          {part.name}
          {part.version && `@${part.version}`}
        </code>
      ))}
    </td>
    <td className="p-3 text-ink-2">
      <At time={version.sealedAt} />
    </td>
  </tr>
);
