import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { useFresh, useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { Ask } from "../../design/Ask";
import { Doing } from "../../design/Doing";
import { TextField } from "../../design/form";
import { bytes } from "../../design/parts";
import { At } from "../../design/time";
import { Sentence, Sheet } from "./parts";
import { Witnesses } from "./Witnesses";

type Report = Schemas["Report"];

/** How large it is, and whether mails go out. */
function Facts() {
  const facts = useQuery({ queryKey: ["service"], queryFn: () => need(api.GET("/api/v1/service")) }).data;
  const may = useMay();
  if (!facts) return null;
  return (
    <>
      <Sentence>
        {facts.version ? `Version ${facts.version}` : "No release"}, at work since <At time={facts.started} />.
      </Sentence>
      <Sentence>
        {bytes(facts.databaseBytes)} in {facts.database}. Where artifacts, logs and reports are kept,{" "}
        {bytes(facts.freeBytes)} are free of {bytes(facts.wholeBytes)}.
      </Sentence>
      <Sentence>
        <b>Replicas</b>
        {facts.replicas.map((each) => (
          <span key={each.name} className="block text-[13px]">
            {each.name}, at work since <At time={each.started} />, last seen <At time={each.seen} />
          </span>
        ))}
      </Sentence>
      <Sentence>
        <b>What is kept</b>
        <span className="block text-[13px]">
          Nothing that was built, logged or sealed is deleted by itself. A component may have kept{" "}
          <b>{bytes(facts.quotaBytes)}</b>, then its runs fail; an operator sets that as{" "}
          <code>paseo.kept-per-component</code>.
        </span>
        {facts.kept.map((each) => (
          <span key={each.component} className="block text-[13px]">
            <Link to={`/components/${each.component}`}>{each.component}</Link>: {bytes(each.bytes)}
          </span>
        ))}
      </Sentence>
      <Sentence
        change={
          may("MANAGE_ACCOUNTS") && (
            <Doing
              small
              label="Send one to me"
              title="A mail to see whether mails arrive"
              what={<p>It goes to your own address at once; what the mail server says against it is shown here.</p>}
              act="Send it"
              onAct={async () => {
                const sent = await need(api.POST("/api/v1/mail-test"));
                return <p>The mail server took it for {sent.to}.</p>;
              }}
            />
          )
        }
      >
        {facts.mailServer
          ? `Mails go out by ${facts.mailServer}; ${facts.mailsDue === 0 ? "none wait" : `${facts.mailsDue} wait`}.`
          : "No mail server is set: no mails go out."}
      </Sentence>
    </>
  );
}

/** The service itself: its clock, the key of its secrets, and whether its trail is whole. */
export default function Service() {
  const clock = useQuery({ queryKey: ["clock"], queryFn: () => need(api.GET("/api/v1/clock")) });
  const may = useMay();
  const fresh = useFresh();
  return (
    <>
      <title>The service · Settings · Paseo</title>
      <Sheet lead title="The service" about="What holds for all of it.">
        {clock.data && (
          <Sentence change={may("MANAGE_ACCOUNTS") && <Forward />}>
            Its time is <At time={clock.data.now} />.
          </Sentence>
        )}
        <Sentence
          change={
            may("MANAGE_ACCOUNTS") && (
              <Doing
                small
                label="New key"
                title="A new key for secrets"
                what={
                  <p>
                    Every value’s key is sealed with it, in one transaction. The file of the one before stays: old
                    backups need it.
                  </p>
                }
                act="Make it"
                onAct={async () => {
                  const made = await need(api.POST("/api/v1/secrets/rotation"));
                  await fresh();
                  return <p>{made.values} values are sealed with the new key.</p>;
                }}
              />
            )
          }
        >
          Secrets are sealed with a key in a file of its own.
        </Sentence>
        {may("READ_METRICS") && <Facts />}
        <Sentence>
          <Link to="/api">Everything it can do, as the API has it</Link>
        </Sentence>
      </Sheet>
      {may("VERIFY_AUDIT") && (
        <>
          <Trail manages={may("MANAGE_ACCOUNTS")} />
          <Witnesses manages={may("MANAGE_ACCOUNTS")} />
        </>
      )}
    </>
  );
}

function Forward() {
  const [by, setBy] = useState("PT6H");
  const fresh = useFresh();
  return (
    <Doing
      small
      label="Move it forward"
      title="Move the service’s time forward"
      what={
        <p>Only where it was set up for that, as demos and rehearsals are. What waits for a time goes on by itself.</p>
      }
      act="Move it"
      danger
      beside={["/by"]}
      fields={(refused) => (
        <TextField
          label="By"
          about="a length as ISO 8601 has it, such as PT6H"
          at="/by"
          refused={refused}
          value={by}
          onType={setBy}
        />
      )}
      onAct={async () => {
        await need(api.POST("/api/v1/clock", { body: { by } }));
        await fresh();
        return undefined;
      }}
    />
  );
}

/** Whether anybody altered what the audit trail says. */
function Trail({ manages }: { manages: boolean }) {
  const [report, setReport] = useState<Report>();
  const fresh = useFresh();
  return (
    <Sheet
      title="Audit trail"
      about="Signed heads cover every entry; verifying reads all of them, and holds what they state against the rows."
      acts={
        <>
          <Link className="btn" to="/audit">
            Read it
          </Link>
          <Doing
            label="Verify it"
            title="Verify the audit trail"
            what={<p>All entries are read once more. Nothing is changed.</p>}
            act="Verify"
            onAct={async () => {
              setReport(await need(api.GET("/api/v1/audit/verification")));
              return undefined;
            }}
          />
        </>
      }
    >
      {report && (
        <>
          <Sentence>
            {report.covered} of {report.entries} entries are covered by heads; {report.notCovered} are not yet.
          </Sentence>
          {report.findings.length === 0 ? (
            <Sentence>
              <b className="good">Nothing was altered.</b>
            </Sentence>
          ) : (
            report.findings.map((each) => (
              <Sentence key={each}>
                <span className="bad">{each}</span>
              </Sentence>
            ))
          )}
          {report.restored.map((each) => (
            <Sentence key={each}>{each}</Sentence>
          ))}
        </>
      )}
      {manages && (
        <Sentence
          change={
            <Ask
              small
              label="Say that it was restored"
              title="The database was restored from a copy"
              what={
                <p>
                  The verification names the gap from then on, and finds no fault with it. Say it only where it is so:
                  it stands in the trail for good.
                </p>
              }
              act="Say so"
              reason="Why, and how old the copy was"
              needed
              danger
              onAct={async (reason) => {
                await need(api.POST("/api/v1/audit/restore", { body: { reason } }));
                await fresh();
              }}
            />
          }
        >
          Entries are missing where the database was restored from an older copy.
        </Sentence>
      )}
    </Sheet>
  );
}
