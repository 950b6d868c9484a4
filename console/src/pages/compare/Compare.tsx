import { useQuery } from "@tanstack/react-query";
import { Link, useParams, useSearchParams } from "react-router";
import { versionComparison, versions } from "../../api/queries";
import { Loading, Trouble } from "../../design/parts";
import { Changes } from "../deployment/Changes";
import { EVIDENCE, TITLE_END, WHERE_ASKS } from "../../design/classes";

/** Two versions of a component, one beside the other: commits, artifacts, evidence, recipe, pieces. */
export default function Compare() {
  const { name = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const known = useQuery(versions(name));
  if (known.isPending) return <Loading />;
  if (known.isLoadingError) return <Trouble whole error={known.error} />;
  const to = params.get("to") ?? known.data[0] ?? "";
  const from = params.get("from") ?? known.data.find((number) => number !== to) ?? "";
  const set = (which: "from" | "to", number: string) => setParams({ from, to, [which]: number }, { replace: true });
  const offered = [...new Set([...known.data, from, to].filter((number) => number !== ""))];
  return (
    <>
      <title>{`${name}: ${from} and ${to} · Paseo`}</title>
      <div className="title-line">
        <h1>
          <Link className="text-ink-2 font-medium" to={`/components/${name}`}>
            {name}
          </Link>{" "}
          compared
        </h1>
        <form className={`${TITLE_END} ${WHERE_ASKS}`} onSubmit={(event) => event.preventDefault()}>
          {(["from", "to"] as const).map((which) => (
            <label key={which} className="flex items-center gap-2 text-[13px] text-ink-2">
              {which}
              <select value={which === "from" ? from : to} onChange={(event) => set(which, event.target.value)}>
                {offered.map((number) => (
                  <option key={number}>{number}</option>
                ))}
              </select>
            </label>
          ))}
        </form>
      </div>
      {from === "" || from === to ? (
        <p className="quiet pad">Choose two versions that are not the same.</p>
      ) : (
        <Difference key={`${from} ${to}`} name={name} from={from} to={to} />
      )}
    </>
  );
}

function Difference({ name, from, to }: { name: string; from: string; to: string }) {
  const compared = useQuery(versionComparison(name, from, to));
  if (compared.isPending) return <Loading height={420} />;
  if (compared.isLoadingError) return <Trouble error={compared.error} />;
  return (
    <div className={EVIDENCE}>
      <Changes comparison={compared.data} version={to} />
    </div>
  );
}
