import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowUp, Plus, X } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { useMay } from "../../api/may";
import { api, need } from "../../api/client";
import { sets as setsQuery, versions, whereabouts } from "../../api/queries";
import { Field, Refused, useTrying } from "../../design/form";
import { StateWord } from "../../design/Glyph";
import { Loading, Trouble } from "../../design/parts";
import { deploymentState } from "../../design/states";
import { At } from "../../design/time";
import { membersOf } from "../whereabouts/dense";
import { Wide } from "../../design/Wide";
import { BRING_IN, TITLE_ACTION } from "../../design/classes";

const MEMBER_ROW = "grid grid-cols-[minmax(0,1fr)_150px_auto_auto] gap-2 w-full items-center";

/** Versions of several components that are promoted, and undone, as one. */
export default function Sets() {
  const all = useQuery(setsQuery());
  const [params] = useSearchParams();
  const makes = useMay()("PROMOTE");
  const picked = membersOf(params);
  const [making, make] = useState(picked.length > 0);
  if (all.isPending) return <Loading height={360} />;
  if (all.isLoadingError) return <Trouble whole error={all.error} />;
  return (
    <>
      <title>Sets · Paseo</title>
      <div className="title-line">
        <h1>Sets</h1>
        <p>Versions of several components, promoted as one and undone as one.</p>
        <div className={TITLE_ACTION}>
          {makes && (
            <button type="button" className="btn" aria-expanded={making} onClick={() => make(!making)}>
              <Plus size={16} />
              Make a set
            </button>
          )}
        </div>
      </div>
      {makes && making && <Make picked={picked} />}
      {all.data.length === 0 && !making && (
        <p className="empty">
          No set yet. {makes ? "Make" : "Whoever may promote makes"} one of versions that belong together: they wait at
          one gate, go live in the order you give, and come back together if one fails.
        </p>
      )}
      {all.data.length > 0 && (
        <section className="sheet pad">
          <Wide label="Sets">
            <table>
              <thead>
                <tr>
                  <th>Set</th>
                  <th>Versions, in their order</th>
                  <th>Made</th>
                  <th>Newest promotion</th>
                </tr>
              </thead>
              <tbody>
                {all.data.map((set) => (
                  <tr key={set.name}>
                    <td>
                      <Link to={`/sets/${set.name}`}>
                        <b>{set.name}</b>
                      </Link>
                    </td>
                    <td>
                      {set.members.map((member) => (
                        <span key={member.component} className="inline-block mr-3.5 whitespace-nowrap">
                          {member.component}{" "}
                          <Link className="v" to={`/versions/${member.component}/${member.version}`}>
                            {member.version}
                          </Link>
                        </span>
                      ))}
                    </td>
                    <td>
                      <At time={set.at} />
                      {set.by && <span className="quiet"> by {set.by}</span>}
                    </td>
                    <td>
                      {set.promotions[0] ? (
                        <>
                          into {set.promotions[0].environment}{" "}
                          <StateWord state={deploymentState(set.promotions[0].status)} />
                        </>
                      ) : (
                        <span className="quiet">none</span>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Wide>
        </section>
      )}
    </>
  );
}

interface Member {
  component: string;
  version: string;
}

const NONE: Member = { component: "", version: "" };

/** @param picked what whereabouts was asked for; two are the least */
function Make({ picked }: { picked: Member[] }) {
  const where = useQuery(whereabouts());
  const client = useQueryClient();
  const go = useNavigate();
  const [name, setName] = useState("");
  const [members, setMembers] = useState<Member[]>([...picked, NONE, NONE].slice(0, Math.max(2, picked.length)));
  const { trying, refused } = useTrying();
  const names = where.data?.rows.map((row) => row.component) ?? [];
  const change = (at: number, member: Member) =>
    setMembers(members.map((each, index) => (index === at ? member : each)));
  const up = (at: number) =>
    setMembers(members.map((each, index) => (index === at - 1 ? members[at] : index === at ? members[at - 1] : each)));
  const make = () =>
    trying(async () => {
      await need(api.POST("/api/v1/sets", { body: { name, members } }));
      await client.invalidateQueries({ queryKey: ["sets"] });
      await go(`/sets/${name}`);
    });
  return (
    <section className={`sheet bring-in ${BRING_IN} make-set mb-4`}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void make();
        }}
      >
        <Field label="Name" at="/name" refused={refused}>
          <input
            value={name}
            onChange={(event) => setName(event.target.value)}
            required
            maxLength={63}
            placeholder="evening"
          />
        </Field>
        <p className="quiet">In the order in which they are deployed. A set never changes once it is made.</p>
        {members.map((member, at) => (
          <div key={at} className={MEMBER_ROW}>
            <select
              aria-label={`Component ${at + 1}`}
              value={member.component}
              required
              onChange={(event) => change(at, { component: event.target.value, version: "" })}
            >
              <option value="">component</option>
              {names
                .filter((each) => each === member.component || members.every((other) => other.component !== each))
                .map((each) => (
                  <option key={each}>{each}</option>
                ))}
            </select>
            <VersionOf at={at} member={member} onChange={(version) => change(at, { ...member, version })} />
            <button
              type="button"
              className="icon small"
              disabled={at === 0}
              onClick={() => up(at)}
              aria-label={`Deploy ${member.component || "this one"} earlier`}
            >
              <ArrowUp size={15} />
            </button>
            <button
              type="button"
              className="icon small"
              disabled={members.length <= 2}
              onClick={() => setMembers(members.filter((_, index) => index !== at))}
              aria-label={`Take ${member.component || "this one"} out`}
            >
              <X size={15} />
            </button>
          </div>
        ))}
        <button type="button" className="btn small quiet-btn" onClick={() => setMembers([...members, NONE])}>
          <Plus size={14} />
          Another
        </button>
        <Refused refused={refused} beside={["/name"]} />
        <button type="submit" className="btn primary">
          Make the set
        </button>
      </form>
    </section>
  );
}

function VersionOf({ at, member, onChange }: { at: number; member: Member; onChange: (version: string) => void }) {
  const known = useQuery({ ...versions(member.component), enabled: member.component !== "" });
  return (
    <select
      aria-label={`Version ${at + 1}`}
      value={member.version}
      required
      disabled={!known.data}
      onChange={(event) => onChange(event.target.value)}
    >
      <option value="">version</option>
      {[...new Set([...(known.data ?? []), ...(member.version ? [member.version] : [])])].map((each) => (
        <option key={each}>{each}</option>
      ))}
    </select>
  );
}
