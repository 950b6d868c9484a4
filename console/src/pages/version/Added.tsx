import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, need } from "../../api/client";
import { useMay } from "../../api/may";
import { me } from "../../api/queries";
import { Ask } from "../../design/Ask";
import { At } from "../../design/time";
import { PLAIN } from "../../design/classes";

/** Evidence that was added after the version was sealed; nothing where there is none and nobody here may
 * add any. Beside a gate it is only read. */
export function Added({ component, number, beside }: { component: string; number: string; beside?: boolean }) {
  const client = useQueryClient();
  const may = useMay()("ADD_EVIDENCE", { component }) && !beside;
  const who = useQuery(me());
  const path = { component, number };
  const found = useQuery({
    queryKey: ["version", component, number, "added"],
    queryFn: () => need(api.GET("/api/v1/versions/{component}/{number}/evidence", { params: { path } })),
  });
  if (!found.data || (found.data.length === 0 && !may)) return null;
  return (
    <section className="sheet pad" aria-label="Added evidence">
      <h2>Added after it was sealed</h2>
      {found.data.length === 0 && <p className="quiet">Nothing yet. Tools add it: paseo evidence add.</p>}
      <ul className={`${PLAIN} grid gap-2`}>
        {found.data.map((each) => (
          <li key={`${each.kind} ${each.environment} ${each.sha256}`}>
            {each.name ? (
              <>
                <b>{each.name}</b>: “{each.words}”
              </>
            ) : (
              <a
                href={`/api/v1/versions/${component}/${encodeURIComponent(number)}/evidence/${each.sha256}`}
                download={each.kind}
              >
                {each.kind}
              </a>
            )}{" "}
            <span className="quiet">
              {each.environment && `in ${each.environment}, `}added by {each.by} <At time={each.at} />
            </span>
          </li>
        ))}
      </ul>
      {may && who.data && (
        <Ask
          small
          label="Sign off"
          title={`Sign off ${component} ${number}`}
          reason="What you say about it"
          needed
          act="Sign off"
          what={<p>Your name and words stand beside the version for good, and gates that ask for them see them.</p>}
          onAct={async (words) => {
            const name = who.data.name;
            await need(
              api.POST("/api/v1/versions/{component}/{number}/sign-offs", {
                params: { path },
                body: { name, words },
              }),
            );
            await client.invalidateQueries();
          }}
        />
      )}
    </section>
  );
}
