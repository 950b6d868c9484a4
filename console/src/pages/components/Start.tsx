import { useQuery } from "@tanstack/react-query";
import { Play } from "lucide-react";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, need, type Schemas } from "../../api/client";
import { pipeline } from "../../api/components";
import { Refused, useTrying, wrongAt } from "../../design/form";
import { START } from "../../design/classes";

type View = Schemas["ComponentView"];

/** Starts a run of a branch, with answers to what its file asks. */
export function Start({ view }: { view: View }) {
  const navigate = useNavigate();
  const [branch, setBranch] = useState(view.mainBranch);
  const [answers, setAnswers] = useState<Record<string, string>>({});
  const { trying, refused } = useTrying();
  const file = useQuery({ ...pipeline(view.name, branch), enabled: branch in view.heads });
  const check = useQuery({
    queryKey: ["pipeline-check", view.name, file.data?.text],
    enabled: Boolean(file.data?.text),
    staleTime: Infinity,
    queryFn: () =>
      need(
        api.POST("/api/v1/components/{name}/pipeline/check", {
          params: { path: { name: view.name } },
          body: { text: file.data?.text ?? "" },
        }),
      ),
  });
  const asks = Object.entries(check.data?.plan?.asks ?? {});
  const start = () =>
    trying(async () => {
      const run = await need(api.POST("/api/v1/runs", { body: { component: view.name, branch, answers } }));
      await navigate(`/runs/${run.component}/${run.number}`);
    });
  return (
    <form
      className={START}
      onSubmit={(event) => {
        event.preventDefault();
        void start();
      }}
    >
      <h2>Start a run</h2>
      <label>
        Branch
        <select value={branch} onChange={(event) => setBranch(event.target.value)}>
          {Object.keys(view.heads).map((head) => (
            <option key={head}>{head}</option>
          ))}
        </select>
      </label>
      {asks.map(([name, ask]) => (
        <Ask
          key={name}
          ask={ask}
          value={answers[name] ?? ask.standard}
          wrong={wrongAt(refused, `/answers/${name}`)}
          onAnswer={(answer) => setAnswers({ ...answers, [name]: answer })}
        />
      ))}
      <button type="submit" className="btn">
        <Play size={15} />
        <span className="truncate">Start {view.name}</span>
      </button>
      <Refused refused={refused} beside={asks.map(([name]) => `/answers/${name}`)} />
    </form>
  );
}

interface AskProps {
  ask: Schemas["AskView"];
  value: string;
  wrong: string | undefined;
  onAnswer: (answer: string) => void;
}

function Ask({ ask, value, wrong, onAnswer }: AskProps) {
  const beside = wrong && (
    <span className="field-error" role="alert">
      {wrong}
    </span>
  );
  if (ask.kind === "flag")
    return (
      <label className="flag">
        <input
          type="checkbox"
          checked={value === "true"}
          onChange={(event) => onAnswer(String(event.target.checked))}
        />
        {ask.question}
        {beside}
      </label>
    );
  return (
    <label>
      {ask.question}
      {ask.kind === "one-of" ? (
        <select value={value} onChange={(event) => onAnswer(event.target.value)}>
          {ask.of.map((choice) => (
            <option key={choice}>{choice}</option>
          ))}
        </select>
      ) : (
        <input
          value={value}
          inputMode={ask.kind === "number" ? "decimal" : "text"}
          aria-invalid={wrong ? true : undefined}
          onChange={(event) => onAnswer(event.target.value)}
        />
      )}
      {beside}
    </label>
  );
}
