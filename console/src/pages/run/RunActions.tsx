import { useQueryClient } from "@tanstack/react-query";
import { CircleX, RotateCw, StepForward } from "lucide-react";
import { useState } from "react";
import { useNavigate } from "react-router";
import { useMay } from "../../api/may";
import { api, need, type Schemas } from "../../api/client";
import { TITLE_ACTION } from "../../design/classes";

type Summary = Schemas["RunSummary"];

/** What a person can do with a run now; a refusal is told beside the button. */
export function RunActions({ run }: { run: Summary }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const may = useMay();
  const [refused, setRefused] = useState("");
  const path = { component: run.component, number: run.number };
  const act = async (what: () => Promise<unknown>) => {
    setRefused("");
    try {
      await what();
      await client.invalidateQueries({ queryKey: ["run"] });
    } catch (error) {
      setRefused(error instanceof Error ? error.message : String(error));
    }
  };
  const cancel = () =>
    act(() => need(api.POST("/api/v1/runs/{component}/{number}/cancellation", { params: { path } })));
  const resume = () => act(() => need(api.POST("/api/v1/runs/{component}/{number}/resumption", { params: { path } })));
  const again = () =>
    act(async () => {
      const started = await need(api.POST("/api/v1/runs/{component}/{number}/repetition", { params: { path } }));
      await navigate(`/runs/${started.component}/${started.number}`);
    });
  if (!may("START_RUN", { component: run.component })) return null;
  const resumable = run.status === "failed" || run.status === "cancelled";
  return (
    <div className={TITLE_ACTION}>
      {refused && (
        <span className="bad" role="alert">
          {refused}
        </span>
      )}
      {!run.endedAt && (
        <button type="button" className="btn" onClick={() => void cancel()}>
          <CircleX size={16} />
          {run.status === "cancelling" ? "End its steps at once" : "Cancel run"}
        </button>
      )}
      {resumable && (
        <button
          type="button"
          className="btn"
          onClick={() => void resume()}
          title="What passed stands; what failed, and all that waits for it, gets another attempt"
        >
          <StepForward size={16} />
          Resume
        </button>
      )}
      {run.endedAt && (
        <button
          type="button"
          className="btn quiet-btn"
          onClick={() => void again()}
          title="The same commit once more, as a run of its own"
        >
          <RotateCw size={16} />
          Run again
        </button>
      )}
    </div>
  );
}
