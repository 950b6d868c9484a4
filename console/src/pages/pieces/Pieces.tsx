import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { component as componentQuery, pieces, pieceUsers } from "../../api/components";
import { Loading, Trouble } from "../../design/parts";
import { Trial } from "./Trial";
import { Users } from "./Users";
import { RUN_COLUMNS } from "../../design/classes";
import { Wide } from "../../design/Wide";

/** The pieces of a component: what each is given, who uses them, and what a new version would do to each of those. */
export default function Pieces() {
  const { name = "" } = useParams();
  const about = useQuery(componentQuery(name));
  const known = useQuery(pieces(name));
  const users = useQuery(pieceUsers(name));
  if (about.isPending || known.isPending || users.isPending) return <Loading height={520} />;
  const failed = about.error ?? known.error ?? users.error;
  if (failed || !about.data || !known.data || !users.data) return <Trouble error={failed} />;
  return (
    <>
      <title>{`Pieces of ${name} · Paseo`}</title>
      <div className="title-line">
        <h1>
          <Link className="text-ink-2 font-medium" to={`/components/${name}`}>
            {name}
          </Link>{" "}
          pieces
        </h1>
        <p>{known.data.version ? `as others can take them, in ${known.data.version}` : "none is sealed yet"}</p>
      </div>
      <div className={RUN_COLUMNS}>
        <div className="min-w-0">
          <Users users={users.data} newest={known.data.version} />
          {known.data.pieces.map((each) => (
            <PieceSheet key={each.piece.name} view={each} />
          ))}
          {known.data.pieces.length === 0 && (
            <section className="sheet p-5">
              <h2 className="m-0 mb-1">No pieces yet</h2>
              <p className="m-0 text-ink-2">
                What several pipeline files say alike can stand here once: write it under <code>pieces</code> in the
                <Link to={`/components/${name}/pipeline`}> pipeline file</Link>, and let others be <code>like</code> it.
              </p>
            </section>
          )}
        </div>
        <Trial name={name} branches={Object.keys(about.data.heads)} main={about.data.mainBranch} />
      </div>
    </>
  );
}

function PieceSheet({ view: { piece, users } }: { view: Schemas["PieceView"] }) {
  return (
    <section className="sheet mt-4 p-5" aria-label={piece.name}>
      <div className="flex items-baseline gap-3">
        <h2 className="m-0">{piece.name}</h2>
        <span>{piece.summary}</span>
        <span className="grow" />
        <span className="text-[12px] whitespace-nowrap text-ink-2">
          used by {users} {users === 1 ? "component" : "components"}
        </span>
      </div>
      <p className="mt-1 mb-0 text-[13px] text-ink-2">
        Brings {piece.parts.join(", ")}. Lets be changed: {piece.mayChange.join(", ") || "nothing"}. SHA-256{" "}
        <code title={piece.digest}>{piece.digest.slice(0, 12)}</code>
      </p>
      {piece.inputs.length > 0 && (
        <Wide label={`What ${piece.name} is given`}>
          <table className="mt-3 w-full">
            <thead>
              <tr>
                <th>Given</th>
                <th>Kind</th>
                <th>If absent</th>
                <th>What it is</th>
              </tr>
            </thead>
            <tbody>
              {piece.inputs.map((input) => (
                <tr key={input.name}>
                  <td>
                    <b>{input.name}</b>
                  </td>
                  <td>{input.of.length > 0 ? `one of ${input.of.join(", ")}` : input.kind}</td>
                  <td>
                    {input.standard === undefined ? (
                      <span className="text-ink-2">has to be given</span>
                    ) : (
                      <code>{input.standard}</code>
                    )}
                  </td>
                  <td>{input.words}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
    </section>
  );
}
