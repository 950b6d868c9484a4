import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { api, need } from "../../api/client";
import { Loading, Trouble } from "../../design/parts";
import { coded } from "../api/words";

/** Where the type of a problem leads: what it means, and what to do. Nobody needs to be signed in. */
export default function ProblemType() {
  const { name = "" } = useParams();
  const all = useQuery({ queryKey: ["problems"], queryFn: () => need(api.GET("/api/v1/problems")) });
  if (all.error) return <Trouble error={all.error} />;
  if (!all.data) return <Loading />;
  const known = all.data.find((each) => each.name === name);
  return (
    <main className="mx-auto max-w-[680px] px-6 py-12">
      <title>{`${name} · Paseo`}</title>
      <p className="text-ink-3">A problem that Paseo answers with</p>
      <h1 className="mt-1 text-[28px] leading-8">{known ? name : `There is no problem called ${name}`}</h1>
      {known && (
        <section className="sheet mt-6 p-6">
          <p className="text-ink-3">HTTP status {known.status}</p>
          <p className="mt-2 text-[16px] leading-6">{coded(known.meaning)}</p>
        </section>
      )}
      <h2 className="mt-8 mb-2">All problems</h2>
      <ul className="m-0 flex list-none flex-wrap gap-x-4 gap-y-1 p-0">
        {all.data.map((each) => (
          <li key={each.name}>
            <Link to={`/problems/${each.name}`} aria-current={each.name === name ? "page" : undefined}>
              {each.name}
            </Link>
          </li>
        ))}
      </ul>
    </main>
  );
}
