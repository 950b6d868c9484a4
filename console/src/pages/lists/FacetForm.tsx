import { useQuery } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import { whereabouts } from "../../api/queries";
import { Search } from "../../design/Search";
import {
  asked,
  narrows,
  DEPLOYMENT_STATUSES,
  KIND_WORDS,
  RUN_STATUSES,
  SINCE,
  type Facet,
  type Facets,
} from "./facets";

/** What is typed is asked so many milliseconds after the last letter. */
const PAUSE = 250;
const ANY: Partial<Record<Facet, string>> = {
  since: "any time",
  blocked: "blocked or not",
  by: "by anybody",
  kind: "whatever happened",
  started: "started a run or not",
  what: "any action",
  text: "any text",
};

/** Two beside each other, so that the list begins on the first screen. */
const ON_A_PHONE = "max-sm:grid max-sm:grid-cols-2 max-sm:[&>input]:w-full max-sm:[&>select]:w-full";

/** What the address asks of a list, and how another thing is asked. */
export function useFacets(of: readonly Facet[]): [Facets, (facet: Facet, value: string) => void] {
  const [params, setParams] = useSearchParams();
  const set = (facet: Facet, value: string) =>
    setParams(
      (now) => {
        if (value) now.set(facet, value);
        else now.delete(facet);
        return now;
      },
      { replace: true },
    );
  return [asked(params, of), set];
}

interface Known {
  component: string[];
  environment: string[];
  label: string[];
}

/** Which names there are to choose from. */
function useNames(): Known {
  const where = useQuery(whereabouts());
  const rows = where.data?.rows ?? [];
  return {
    component: rows.map((row) => row.component),
    environment: where.data?.environments.map((each) => each.name) ?? [],
    label: [...new Set(rows.flatMap((row) => Object.values(row.labels)))].sort(),
  };
}

interface FacetProps {
  facet: Facet;
  value: string;
  of: [value: string, word: string][];
  onChoose: (value: string) => void;
}

function Choice({ facet, value, of, onChoose }: FacetProps) {
  const shown = value && !of.some(([each]) => each === value) ? [...of, [value, value] as [string, string]] : of;
  return (
    <select aria-label={`Which ${facet}`} value={value} onChange={(event) => onChoose(event.target.value)}>
      <option value="">{ANY[facet] ?? `any ${facet}`}</option>
      {shown.map(([each, word]) => (
        <option key={each} value={each}>
          {word}
        </option>
      ))}
    </select>
  );
}

const same = (names: string[]) => names.map((name): [string, string] => [name, name]);

interface FormProps {
  title: string;
  facets: readonly Facet[];
  statuses?: "runs" | "deployments";
}

/** What can be asked of a list; what is asked stands in the address. */
export function FacetForm({ title, facets, statuses }: FormProps) {
  const [asks, set] = useFacets(facets);
  const names = useNames();
  const choices = (facet: Facet): [string, string][] | undefined => {
    switch (facet) {
      case "component":
      case "environment":
      case "label":
        return same(names[facet]);
      case "status":
        return same(statuses === "runs" ? RUN_STATUSES : DEPLOYMENT_STATUSES);
      case "since":
        return Object.entries(SINCE).map(([word, { words }]) => [word, words]);
      case "kind":
        return Object.entries(KIND_WORDS);
      case "started":
        return [
          ["true", "started a run"],
          ["false", "started nothing"],
        ];
      case "blocked":
        return [
          ["true", "blocked"],
          ["false", "not blocked"],
        ];
      default:
        return undefined;
    }
  };
  return (
    <form
      className={`mb-4 flex flex-wrap items-center gap-2 ${ON_A_PHONE}`}
      aria-label={`Which ${title.toLowerCase()}`}
      onSubmit={(event) => event.preventDefault()}
    >
      {facets.map((facet) => {
        if (facet === "first") return null;
        const of = choices(facet);
        const common = { facet, value: asks[facet] ?? "", onChoose: (value: string) => set(facet, value) };
        if (facet === "label" && names.label.length === 0) return null;
        return of ? (
          <Choice key={facet} {...common} of={of} />
        ) : (
          <Search
            key={facet}
            label={`Which ${facet}`}
            placeholder={ANY[facet] ?? `any ${facet}`}
            value={common.value}
            onType={common.onChoose}
            pause={PAUSE}
          />
        );
      })}
      {narrows(asks) && (
        <Link className="btn small" to="?">
          All of them
        </Link>
      )}
    </form>
  );
}
