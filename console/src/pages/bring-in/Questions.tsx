import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Choice } from "../../design/Choice";
import { Field } from "../../design/form";

type Question = Schemas["QuestionView"];

interface QuestionsProps {
  asked: Question[];
  refused: Error | undefined;
  busy: boolean;
  onAnswer: (name: string, answer: string) => void;
}

/** What the files do not tell. An answer draws the draft anew; what nobody answers holds as it stands here. */
export function Questions({ asked, refused, busy, onAnswer }: QuestionsProps) {
  return (
    <fieldset className="m-0 grid w-full gap-3.5 border-0 p-0" aria-busy={busy}>
      <legend className="mb-3 p-0">
        <strong className="block text-[16px]">Questions</strong>
        <span className="text-[13px] text-ink-2">
          What the files do not tell. The draft follows your answers; each has what is likely already.
        </span>
      </legend>
      {asked.map((question) =>
        question.of.length > 0 ? (
          <Choice
            key={question.name}
            label={question.question}
            value={question.answer}
            of={question.of.map((word) => ({ value: word, word }))}
            onChoose={(answer) => onAnswer(question.name, answer)}
          />
        ) : (
          <Text key={`${question.name}=${question.answer}`} question={question} refused={refused} onAnswer={onAnswer} />
        ),
      )}
    </fieldset>
  );
}

/** Sent when it is left, or at Enter. */
function Text({ question, refused, onAnswer }: Pick<QuestionsProps, "refused" | "onAnswer"> & { question: Question }) {
  const [typed, setTyped] = useState(question.answer);
  const send = () => {
    if (typed.trim() !== question.answer) onAnswer(question.name, typed.trim());
  };
  return (
    <Field label={question.question} at={`/answers/${question.name}`} refused={refused}>
      <input
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={send}
        onKeyDown={(event) => {
          if (event.key === "Enter") {
            event.preventDefault();
            send();
          }
        }}
        spellCheck={false}
        className="font-mono"
      />
    </Field>
  );
}
