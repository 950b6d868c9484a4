import { useQuery } from "@tanstack/react-query";
import { FileSearch } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { Glyph } from "../../design/Glyph";
import { bytes, Loading, Trouble } from "../../design/parts";
import { At } from "../../design/time";
import { Looking } from "../history/Looking";
import { decisionsOf, hostsOf } from "./told";
import { Wide } from "../../design/Wide";

type File = Schemas["SealedFileView"];
type Stay = Schemas["LiveStayView"];

/** The service tells of no more. */
const MOST = 20;

/** What a file is, by its digest: of which version, how it came about, where it is live and was. */
export default function Origin() {
  const { sha256 } = useParams();
  return (
    <>
      <title>{`${sha256 ? `File ${sha256.slice(0, 8)}` : "What is this file?"} · Paseo`}</title>
      <div className="title-line">
        <h1>{sha256 ? "A file" : "What is this file?"}</h1>
        <Choose />
        <p>
          <Looking but="What is this file?" />
        </p>
      </div>
      {sha256 ? (
        <Told sha256={sha256} />
      ) : (
        <p className="quiet max-w-[60ch]">
          Choose a file, such as one copied from a host: its SHA-256 is worked out in this browser, and the file goes
          nowhere. Or open the page of a digest from a version. Without this service,{" "}
          <code>paseo verify FILE --statement FILE --key FILE</code> says it from a signed statement.
        </p>
      )}
    </>
  );
}

/** Works out the digest of a file that is chosen, here. */
function Choose() {
  const navigate = useNavigate();
  const [trouble, setTrouble] = useState<string>();
  const choose = async (file?: Blob) => {
    if (!file) return;
    try {
      const digest = new Uint8Array(await crypto.subtle.digest("SHA-256", await file.arrayBuffer()));
      setTrouble(undefined);
      await navigate(`/origins/${[...digest].map((byte) => byte.toString(16).padStart(2, "0")).join("")}`);
    } catch {
      setTrouble("This browser cannot read or digest it here; paseo verify FILE does.");
    }
  };
  return (
    <>
      <label className="btn">
        <FileSearch size={15} />
        Choose a file
        <input
          type="file"
          className="sr-only"
          onChange={(event) => {
            void choose(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </label>
      {trouble && <p className="text-bad">{trouble}</p>}
    </>
  );
}

function Told({ sha256 }: { sha256: string }) {
  const origin = useQuery({
    queryKey: ["origin", sha256],
    queryFn: () => need(api.GET("/api/v1/origins/{sha256}", { params: { path: { sha256 } } })),
    retry: false,
  });
  return (
    <>
      <p className="quiet">
        SHA-256 <code className="[overflow-wrap:anywhere]">{sha256}</code>
      </p>
      {origin.isPending && <Loading height={320} />}
      {origin.isLoadingError && <Trouble error={origin.error} />}
      {origin.data?.versions.map((each) => (
        <Sealed key={`${each.component} ${each.version}`} file={each} />
      ))}
      {origin.data?.versions.length === MOST && (
        <p className="quiet">At most {MOST} versions are told of: those that are live, then the newest.</p>
      )}
      {origin.data && origin.data.made.length > 0 && (
        <section>
          <h2>Made, and never sealed</h2>
          <ul>
            {origin.data.made.map((each) => (
              <li key={`${each.component} ${each.run} ${each.artifact}`}>
                <Link to={`/runs/${each.component}/${each.run}`}>
                  {each.component} #{each.run}
                </Link>{" "}
                made it as <b>{each.artifact}</b>, <At time={each.at} />. No version was sealed with it, so it was never
                deployed.
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

function Sealed({ file }: { file: File }) {
  const version = `/versions/${file.component}/${encodeURIComponent(file.version)}`;
  const live = file.stays.filter((stay) => !stay.until).map((stay) => stay.environment);
  return (
    <section className="mt-6">
      <h2>
        <Link to={version}>
          {file.component} {file.version}
        </Link>
        , its {file.artifact}
      </h2>
      <p className="my-3">
        <span className={`badge ${live.length > 0 ? "good" : ""}`}>
          {live.length > 0 ? `live in ${live.join(", ")}` : "live nowhere now"}
        </span>{" "}
        {file.blocked && <span className="badge bad">blocked: nobody deploys it any more</span>}
      </p>
      <dl className="facts">
        <dt>file</dt>
        <dd>
          {file.fileName}, {bytes(file.size)}
        </dd>
        {file.run ? (
          <>
            <dt>built by</dt>
            <dd>
              <Link to={`/runs/${file.component}/${file.run}`}>
                {file.component} #{file.run}
              </Link>
            </dd>
          </>
        ) : (
          <>
            <dt>arrived</dt>
            <dd>{file.origin}</dd>
          </>
        )}
        {file.commit && (
          <>
            <dt>from</dt>
            <dd className="[overflow-wrap:anywhere]">
              <code>{file.commit.slice(0, 12)}</code> on {file.branch}
              {file.commitSummary && <>, “{file.commitSummary}”</>}
            </dd>
          </>
        )}
        <dt>sealed</dt>
        <dd>
          <At time={file.sealedAt} />
        </dd>
        <dt>statement</dt>
        <dd>
          <span className="inline-flex flex-wrap items-center gap-1.5">
            <Glyph shape={file.holds ? "passed" : "failed"} tone={file.holds ? "good" : "bad"} size={15} />
            {file.holds ? "signed by this service, unaltered;" : <b>its signature does not hold: it was changed;</b>}
            <a
              href={`/api/v1/versions/${file.component}/${file.version}/statement`}
              download={`${file.component}-${file.version}.statement.json`}
            >
              download it
            </a>
          </span>
        </dd>
      </dl>
      {file.stays.length === 0 ? (
        <p className="quiet">It has never been live.</p>
      ) : (
        <Wide label={`Where ${file.version} was live`} className="mt-5">
          <table>
            <thead>
              <tr>
                <th>Live in</th>
                <th>From</th>
                <th>To</th>
                <th>On</th>
                <th>Allowed by</th>
                <th>Deployment</th>
              </tr>
            </thead>
            <tbody>
              {file.stays.map((stay) => (
                <Row key={`${stay.deployment} ${stay.from}`} stay={stay} />
              ))}
            </tbody>
          </table>
        </Wide>
      )}
    </section>
  );
}

const Row = ({ stay }: { stay: Stay }) => (
  <tr>
    <td>
      <Link to={`/environments/${stay.environment}`}>{stay.environment}</Link>
    </td>
    <td>
      <At time={stay.from} />
    </td>
    <td>{stay.until ? <At time={stay.until} /> : <b>live now</b>}</td>
    <td>{hostsOf(stay).join(", ")}</td>
    <td>
      {decisionsOf(stay)}
      {stay.emergency && <div className="text-bad">emergency: {stay.emergency}</div>}
    </td>
    <td>
      <Link to={`/deployments/${stay.deployment}`}>{stay.deployment}</Link>
    </td>
  </tr>
);
