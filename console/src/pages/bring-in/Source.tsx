import { ChevronRight } from "lucide-react";
import { Choice } from "../../design/Choice";
import { Field } from "../../design/form";

/** Where a component's source is, as it is typed. */
export interface Typed {
  name: string;
  from: "repository" | "upload";
  repository: string;
  file: string;
  /** The component as whose pipeline file its own begins; empty: it is drafted. */
  like: string;
  trusted: string;
  allowed: string;
  account: string;
  password: string;
  authority: string;
  key: string;
  hostKeys: string;
}

export const NOTHING: Typed = {
  name: "",
  from: "repository",
  repository: "",
  file: "",
  like: "",
  trusted: "main",
  allowed: "",
  account: "",
  password: "",
  authority: "",
  key: "",
  hostKeys: "",
};

const listed = (text: string) => text.split(/[\s,]+/).filter(Boolean);
const given = (text: string) => text.trim() || undefined;

/** How it is reached, where anything was said about that. */
export function credentials(typed: Typed) {
  const said = {
    name: given(typed.account),
    password: given(typed.password),
    authority: given(typed.authority),
    key: given(typed.key) && `${typed.key.trim()}\n`,
    hostKeys: given(typed.hostKeys) && `${typed.hostKeys.trim()}\n`,
  };
  return Object.values(said).some(Boolean) ? said : undefined;
}

/** As it is registered. */
export const registration = (typed: Typed, mainBranch?: string) => ({
  name: typed.name,
  repository: typed.repository,
  file: given(typed.file),
  mainBranch,
  trusted: listed(typed.trusted),
  allowed: listed(typed.allowed),
  secrets: [],
  credentials: credentials(typed),
});

interface SourceProps {
  typed: Typed;
  /** The components that are there. */
  known: string[];
  refused: Error | undefined;
  onType: (change: Partial<Typed>) => void;
}

/** The fields of a component's name and source. */
export function Source({ typed, known, refused, onType }: SourceProps) {
  const field = (name: keyof Typed, at: string, label: string, more: React.ComponentProps<"input"> = {}) => (
    <Field label={label} at={at} refused={refused}>
      <input value={typed[name]} onChange={(event) => onType({ [name]: event.target.value })} {...more} />
    </Field>
  );
  const pasted = (name: keyof Typed, at: string, label: string) => (
    <Field label={label} at={at} refused={refused}>
      <textarea
        rows={3}
        spellCheck={false}
        value={typed[name]}
        onChange={(event) => onType({ [name]: event.target.value })}
        className="font-mono text-[12px]"
      />
    </Field>
  );
  return (
    <>
      {field("name", "/name", "Name", {
        required: true,
        pattern: "[a-z0-9][a-z0-9\\-]{0,62}",
        placeholder: "sun-board",
        title: "Small letters, digits and dashes, at most 63",
        id: "name",
      })}
      <Choice
        label="Its versions"
        value={typed.from}
        of={[
          { value: "repository", word: "Come from a repository" },
          { value: "upload", word: "Arrive by upload, or from a store" },
        ]}
        onChoose={(from) => onType({ from: from as Typed["from"] })}
      />
      {typed.from === "repository" && (
        <>
          {field("repository", "/repository", "Repository", {
            required: true,
            placeholder: "file:///srv/git/sun-board.git",
            id: "repository",
          })}
          {field("trusted", "/trusted", "Trusted branches")}
          {known.length > 0 && (
            <label>
              Begin like
              <select value={typed.like} onChange={(event) => onType({ like: event.target.value })}>
                <option value="">what is in the repository</option>
                {known.map((each) => (
                  <option key={each} value={each}>
                    the pipeline file of {each}
                  </option>
                ))}
              </select>
            </label>
          )}
          <details className="group w-full">
            <summary className="flex cursor-pointer list-none items-center gap-1 text-[13px] text-ink-2">
              <ChevronRight size={16} className="group-open:rotate-90" aria-hidden="true" />
              Further branches, another file, credentials
            </summary>
            <div className="mt-3 grid gap-3.5 pl-5">
              {field("allowed", "/allowed", "Allowed branches: their pushes start runs, without secrets", {
                placeholder: "feature/*",
              })}
              {field("file", "/file", "Pipeline file", { placeholder: "paseo.yaml" })}
              {field("account", "/credentials/name", "Account, for https", { autoComplete: "off" })}
              {field("password", "/credentials/password", "Its password or token", {
                type: "password",
                autoComplete: "new-password",
              })}
              {pasted("authority", "/credentials/authority", "Certificates to trust instead of the machine’s, in PEM")}
              {pasted("key", "/credentials/key", "Private key, for ssh")}
              {pasted("hostKeys", "/credentials/hostKeys", "The host’s keys, as lines of a known_hosts file")}
            </div>
          </details>
        </>
      )}
    </>
  );
}
